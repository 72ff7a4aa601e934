import { Box } from "@chakra-ui/react";
import { NavLink, useParams } from "react-router";
import { api, ok, type S, type State } from "../api/client";
import { useKit } from "../api/queries";
import { hue } from "../ui/colours";
import { Waiting } from "../ui/waiting";
import { YourData } from "./data";
import { Inks } from "./inks/drawer";
import { Sets } from "./sets/sets";
import { Add, Field, Panel, Remove, slug, useTake } from "./shelf";

const shelves = ["inks", "cardstock", "spacers", "adhesives", "envelopes", "sets", "data"];

/** The stores: what the person owns. */
export default function Stores() {
	const { shelf = "inks" } = useParams();
	const kit = useKit();
	if (kit.error) return <Waiting>{kit.error.message}</Waiting>;
	if (!kit.data) return <Waiting>Opening the drawers…</Waiting>;
	return (
		<Box maxW="1240px" mx="auto">
			<h1 style={{ fontSize: 26 }}>The stores</h1>
			<Box as="nav" aria-label="Shelves" display="flex" gap="20px" my="8px" flexWrap="wrap">
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
			{shelf === "envelopes" && <Envelopes state={kit.data} />}
			{shelf === "sets" && <Sets state={kit.data} />}
			{shelf === "data" && <YourData />}
		</Box>
	);
}

function Papers({ state }: { state: State }) {
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
								<td>
									{p.gsm} g/m² ({Math.round(p.gsm / 2.7047)} lb cover)
								</td>
								<td>{p.caliper.toFixed(2)} mm</td>
								<td>{p.sheets}</td>
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
					<Field label="Name" name="name" required />
					<label className="field">
						Kind
						<select name="kind">
							{["cardstock", "patterned", "vellum", "acetate", "foil", "glitter", "foam", "watercolour"].map((k) => (
								<option key={k}>{k}</option>
							))}
						</select>
					</label>
					<Field label="Colour" name="colour" type="color" defaultValue="#f6f5f1" />
					<Field label="Weight (g/m²)" name="gsm" type="number" min={20} max={2000} defaultValue={216} />
					<Field label="Thickness (mm)" name="caliper" type="number" step="0.01" min={0.02} max={10} defaultValue={0.28} />
					<Field label="Sheets" name="sheets" type="number" min={0} defaultValue={10} />
				</Add>
			</Panel>
		</>
	);
}

function Spacers({ state }: { state: State }) {
	const take = useTake();
	return (
		<>
			<Panel title="Foam and board">
				<table>
					<tbody>
						{state.kit.spacers.map((s) => (
							<tr key={s.id}>
								<td>{s.name}</td>
								<td>{s.kind}</td>
								<td>{s.thickness.toFixed(2)} mm high</td>
								<td>
									<Remove name={s.name} onClick={() => take("spacers", s.id)} />
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
								body: { id, name: String(f.get("name")), kind: f.get("kind") as S["Spacer"]["kind"], thickness: Number(f.get("thickness")), w: 12, h: 12 },
							}),
						);
					}}
				>
					<Field label="Name" name="name" required />
					<label className="field">
						Kind
						<select name="kind">
							{["square", "mini", "tape", "sheet", "board"].map((k) => (
								<option key={k}>{k}</option>
							))}
						</select>
					</label>
					<Field label="Height (mm)" name="thickness" type="number" step="0.1" min={0.1} max={20} defaultValue={2} />
				</Add>
			</Panel>
		</>
	);
}

function Adhesives({ state }: { state: State }) {
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
								<td>adds {a.thickness.toFixed(2)} mm</td>
								<td>{a.wiggle ? "time to move it" : "grabs at once"}</td>
								<td>{a.setMinutes ? `sets in ${a.setMinutes} min` : ""}</td>
								<td>
									<Remove name={a.name} onClick={() => take("adhesives", a.id)} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
				<Box fontSize="13px" mt="8px" color="quiet">
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
					<Field label="Name" name="name" required />
					<label className="field">
						Kind
						<select name="kind">
							{["liquid", "tape runner", "double-sided", "spray", "dots", "repositionable"].map((k) => (
								<option key={k}>{k}</option>
							))}
						</select>
					</label>
					<Field label="Adds (mm)" name="thickness" type="number" step="0.01" min={0} max={2} defaultValue={0.02} />
					<Field label="Sets in (min)" name="set" type="number" min={0} defaultValue={10} />
					<label className="field">
						Time to move
						<input type="checkbox" name="wiggle" style={{ width: 18 }} />
					</label>
				</Add>
			</Panel>
		</>
	);
}

function Envelopes({ state }: { state: State }) {
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
									{e.w.toFixed(1)} × {e.h.toFixed(1)} mm inside
								</td>
								<td>walls {e.caliper.toFixed(2)} mm</td>
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
								body: { id, name: String(f.get("name")), w: Number(f.get("w")), h: Number(f.get("h")), caliper: Number(f.get("c")) },
							}),
						);
					}}
				>
					<Field label="Name" name="name" required />
					<Field label="Inside width (mm)" name="w" type="number" step="0.1" min={20} defaultValue={111.1} />
					<Field label="Inside height (mm)" name="h" type="number" step="0.1" min={20} defaultValue={146.1} />
					<Field label="Wall (mm)" name="c" type="number" step="0.01" min={0} defaultValue={0.11} />
				</Add>
			</Panel>
		</>
	);
}
