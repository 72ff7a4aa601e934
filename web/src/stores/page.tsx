import { Box } from "@chakra-ui/react";
import { NavLink, useParams } from "react-router";
import { api, ok, type S, type State } from "../api/client";
import { useKit, useSettings } from "../api/queries";
import { Check } from "../ui/check";
import { hue } from "../ui/colours";
import { TextField } from "../ui/field";
import { LengthField } from "../ui/length";
import { NumberEntry } from "../ui/number";
import { Select } from "../ui/select";
import { size } from "../ui/sizes";
import { grammage, length, thin, weight } from "../ui/units";
import { Waiting } from "../ui/waiting";
import { YourData } from "./data";
import { Inks } from "./inks/drawer";
import { Sets } from "./sets/sets";
import { Add, Counted, Panel, Remove, slug, useTake } from "./shelf";

const shelves = ["inks", "cardstock", "spacers", "adhesives", "envelopes", "machines", "sets", "data"];

/** The stores: what the person owns. */
export default function Stores() {
	const { shelf = "inks" } = useParams();
	const kit = useKit();
	if (kit.error) return <Waiting>{kit.error.message}</Waiting>;
	if (!kit.data) return <Waiting>Opening the drawers…</Waiting>;
	return (
		<Box maxW="1240px" mx="auto">
			<h1 style={{ fontSize: size.place }}>The stores</h1>
			<Box as="nav" aria-label="Shelves" display="flex" gap="9" my="4" flexWrap="wrap">
				{shelves.map((s) => (
					<NavLink key={s} to={`/stores/${s}`} style={({ isActive }) => ({ textTransform: "capitalize", color: isActive ? hue.text : hue.ochre })}>
						{s}
					</NavLink>
				))}
			</Box>
			{shelf === "inks" && <Inks state={kit.data} />}
			{shelf === "cardstock" && <Papers state={kit.data} />}
			{shelf === "spacers" && <Spacers state={kit.data} />}
			{shelf === "adhesives" && <Adhesives state={kit.data} />}
			{shelf === "machines" && <Machines state={kit.data} />}
			{shelf === "envelopes" && <Envelopes state={kit.data} />}
			{shelf === "sets" && <Sets state={kit.data} />}
			{shelf === "data" && <YourData />}
		</Box>
	);
}

function Papers({ state }: { state: State }) {
	const s = useSettings();
	const take = useTake();
	return (
		<>
			<Panel title={`Cardstock: ${state.kit.papers.length} papers`}>
				<table>
					<thead>
						<tr>
							<th>Colour</th>
							<th>Name</th>
							<th>Kind</th>
							<th>Weight</th>
							<th>Thickness</th>
							<th>Sheets</th>
							<td />
						</tr>
					</thead>
					<tbody>
						{state.kit.papers.map((p) => (
							<tr key={p.id}>
								<td>
									<Box w="56px" h="24px" bg={p.colour} border={`1px solid ${hue.edge}`} />
								</td>
								<td>{p.name}</td>
								<td>
									{p.kind}
									{p.finish && `, ${p.finish}`}
								</td>
								<td>{grammage(p.gsm, s)}</td>
								<td>{thin(p.caliper, s)}</td>
								<td>
									<Counted
										label={`${p.name}, sheets`}
										n={p.sheets}
										save={(n) => ok(api.PUT("/api/kit/papers/{id}", { params: { path: { id: p.id } }, body: { ...p, sheets: n ?? 0 } }))}
									/>
								</td>
								<td>
									<Remove name={p.name} onClick={() => take("papers", p.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</Panel>
			<Panel title="Add a paper">
				<Add
					label="Add the paper"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/papers/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									kind: f.get("kind") as S["Cardstock"]["kind"],
									colour: String(f.get("colour")),
									gsm: Number(f.get("gsm")),
									caliper: Number(f.get("caliper")),
									sheets: Number(f.get("sheets")),
									w: 215.9,
									h: 279.4,
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<Select label="Kind" name="kind">
						{["cardstock", "patterned", "vellum", "acetate", "foil", "glitter", "foam", "watercolour"].map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<TextField label="Colour" name="colour" type="color" defaultValue="#f6f5f1" />
					<NumberEntry label="Weight" unit="g/m²" name="gsm" begin={216} min={20} max={2000} help={s.unit === "in" ? "80 lb cover is 216" : undefined} />
					<LengthField kind="thin" label="Thickness" name="caliper" mm={0.28} min={0.02} max={10} />
					<NumberEntry label="Sheets" name="sheets" begin={10} min={0} max={10000} />
				</Add>
			</Panel>
		</>
	);
}

function Spacers({ state }: { state: State }) {
	const take = useTake();
	const s = useSettings();
	return (
		<>
			<Panel title="Foam and board">
				<table>
					<tbody>
						{state.kit.spacers.map((x) => (
							<tr key={x.id}>
								<td>{x.name}</td>
								<td>{x.kind}</td>
								<td>{thin(x.thickness, s)} high</td>
								<td>
									<Counted
										label={`${x.name}, left`}
										n={x.left}
										save={(left) => ok(api.PUT("/api/kit/spacers/{id}", { params: { path: { id: x.id } }, body: { ...x, left } }))}
									/>{" "}
									left
								</td>
								<td>
									<Remove name={x.name} onClick={() => take("spacers", x.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</Panel>
			<Panel title="Add a spacer">
				<Add
					label="Add the spacer"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/spacers/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									kind: f.get("kind") as S["Spacer"]["kind"],
									thickness: Number(f.get("thickness")),
									w: Number(f.get("w")),
									h: Number(f.get("h")),
									left: f.get("left") ? Number(f.get("left")) : undefined,
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<Select label="Kind" name="kind">
						{["square", "mini", "tape", "sheet", "board"].map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<LengthField kind="thin" label="Height" name="thickness" mm={2} min={0.1} max={20} />
					<LengthField label="One is wide" name="w" mm={12} min={1} max={1000} />
					<LengthField label="One is long" name="h" mm={12} min={1} max={20000} />
					<TextField label="Left (empty: not counted)" name="left" inputMode="numeric" pattern="[0-9]*" />
				</Add>
			</Panel>
		</>
	);
}

function Adhesives({ state }: { state: State }) {
	const s = useSettings();
	const take = useTake();
	return (
		<>
			<Panel title="Adhesives">
				<table>
					<tbody>
						{state.kit.adhesives.map((a) => (
							<tr key={a.id}>
								<td>{a.name}</td>
								<td>{a.kind}</td>
								<td>adds {thin(a.thickness, s)}</td>
								<td>{a.wiggle ? "time to move it" : "grabs at once"}</td>
								<td>{a.setMinutes ? `sets in ${a.setMinutes} min` : ""}</td>
								<td>
									<Remove name={a.name} onClick={() => take("adhesives", a.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
				<Box fontSize="small" mt="4" color="quiet">
					Solvents and sprays: air the room, no flame. The product's label goes first.
				</Box>
			</Panel>
			<Panel title="Add an adhesive">
				<Add
					label="Add the adhesive"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/adhesives/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									kind: f.get("kind") as S["Adhesive"]["kind"],
									thickness: Number(f.get("thickness")),
									setMinutes: Number(f.get("set")),
									wiggle: f.get("wiggle") === "on",
									shows: true,
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<Select label="Kind" name="kind">
						{["liquid", "tape runner", "double-sided", "spray", "dots", "repositionable"].map((k) => (
							<option key={k}>{k}</option>
						))}
					</Select>
					<LengthField kind="thin" label="Adds" name="thickness" mm={0.02} min={0} max={2} />
					<NumberEntry label="Sets in" unit="min" name="set" begin={10} min={0} max={10000} />
					<Check label="Time to move" name="wiggle" />
				</Add>
			</Panel>
		</>
	);
}

function Envelopes({ state }: { state: State }) {
	const s = useSettings();
	const take = useTake();
	return (
		<>
			<Panel title="Envelopes">
				<table>
					<tbody>
						{state.kit.envelopes.map((e) => (
							<tr key={e.id}>
								<td>{e.name}</td>
								<td>
									{length(e.w, s)} × {length(e.h, s)} inside{e.depth ? `, ${thin(e.depth, s)} high` : ""}
								</td>
								<td>
									walls {thin(e.caliper, s)}
									{e.padding ? `, padded ${thin(e.padding, s)}` : ""}
									{e.grams ? `, ${weight(e.grams, s)}` : ""}
								</td>
								<td>
									<Remove name={e.name} onClick={() => take("envelopes", e.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</Panel>
			<Panel title="Add an envelope">
				<Add
					label="Add the envelope"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/envelopes/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									w: Number(f.get("w")),
									h: Number(f.get("h")),
									caliper: Number(f.get("c")),
									padding: Number(f.get("padding")) || undefined,
									depth: Number(f.get("depth")) || undefined,
									grams: Number(f.get("grams")) || undefined,
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<LengthField label="Inside width" name="w" mm={111.125} min={20} max={1000} />
					<LengthField label="Inside height" name="h" mm={146.05} min={20} max={1000} />
					<LengthField kind="thin" label="Wall" name="c" mm={0.11} min={0} max={5} />
					<LengthField kind="thin" label="Padding on each wall" name="padding" mm={0} min={0} max={30} />
					<LengthField label="A box: high inside (0: none)" name="depth" mm={0} min={0} max={200} />
					<NumberEntry label="Weighs (0: reckoned)" unit="g" name="grams" begin={0} min={0} max={2000} />
				</Add>
			</Panel>
		</>
	);
}

function Machines({ state }: { state: State }) {
	const s = useSettings();
	const take = useTake();
	return (
		<>
			<Panel title="Die machines">
				<table>
					<tbody>
						{state.kit.machines.map((m) => (
							<tr key={m.id}>
								<td>{m.name}</td>
								<td>
									plate {length(m.w, s)} × {length(m.h, s)}
								</td>
								<td>cuts {thin(m.most, s)} in one run</td>
								<td>{m.shim}</td>
								<td>
									<Remove name={m.name} onClick={() => take("machines", m.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
				<Box fontSize="small" mt="4" color="quiet">
					Rollers pinch: keep fingers, hair and sleeves clear. The machine's own label goes first.
				</Box>
			</Panel>
			<Panel title="Add a machine">
				<Add
					label="Add the machine"
					save={(f) => {
						const id = slug(String(f.get("name")));
						return ok(
							api.PUT("/api/kit/machines/{id}", {
								params: { path: { id } },
								body: {
									id,
									name: String(f.get("name")),
									w: Number(f.get("w")),
									h: Number(f.get("h")),
									most: Number(f.get("most")),
									shim: String(f.get("shim")) || undefined,
								},
							}),
						);
					}}
				>
					<TextField label="Name" name="name" required />
					<LengthField label="Plate, wide" name="w" mm={150} min={30} max={1000} />
					<LengthField label="Plate, long" name="h" mm={320} min={30} max={1000} />
					<LengthField kind="thin" label="Cuts in one run" name="most" mm={0.6} min={0.1} max={10} />
					<TextField label="Shims you lay under" name="shim" />
				</Add>
			</Panel>
		</>
	);
}
