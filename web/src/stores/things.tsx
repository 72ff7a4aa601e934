import { Box } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { type Problem, type S, type State, sendBytes } from "../api/client";
import { useRefresh, useSettings } from "../api/queries";
import { Button } from "../ui/button";
import { Check } from "../ui/check";
import { hue } from "../ui/colours";
import Dialog from "../ui/dialog";
import { TextField } from "../ui/field";
import { FileButton } from "../ui/file";
import { LengthField } from "../ui/length";
import { NumberEntry } from "../ui/number";
import { Select } from "../ui/select";
import { type FieldOf, filled, type KindOf, type Thing } from "./kinds";
import { Add, Counted, NoLonger, Panel, Remove, slug } from "./shelf";

/** A shelf of one kind: what is on it, to be found, counted, changed, added, and taken in and out as a table. */
export function Things({ state, of }: { state: State; of: KindOf }) {
	const s = useSettings();
	const asked = useSearchParams()[0].get("find") ?? "";
	const [find, setFind] = useState(asked);
	useEffect(() => setFind(asked), [asked]);
	const [changing, change] = useState<Thing>();
	const all = of.things(state);
	const words = find.toLowerCase().split(/\s+/).filter(Boolean);
	const shown = all.filter((t) => words.every((w) => [t.name, t.kind, t.where, ...of.tell(t, s)].join(" ").toLowerCase().includes(w)));
	return (
		<>
			<Panel title={`${of.title}: ${shown.length < all.length ? `${shown.length} of ` : ""}${all.length}`}>
				<Box display="flex" gap="6" alignItems="end" flexWrap="wrap" mb="4">
					{(all.length > 6 || find) && (
						<TextField label="Find by name, kind, where it is kept" value={find} onChange={(e) => setFind(e.target.value)} width="280px" />
					)}
					<Box flex="1" />
					<Box fontSize="small">
						Take out: <a href={`/api/shelf/${of.kind}.csv`}>table (CSV)</a>
					</Box>
				</Box>
				<table className="things">
					<tbody>
						{shown.map((t) => (
							<tr key={t.id}>
								{of.colour && (
									<td>
										<Box w="56px" h="24px" bg={of.colour(t)} border={`1px solid ${hue.edge}`} />
									</td>
								)}
								<th scope="row">{t.name}</th>
								{of.tell(t, s).map((cell, i) => (
									<td key={of.fields[i]?.key}>{cell}</td>
								))}
								<td>{t.where}</td>
								{of.count && <CountedCell t={t} of={of} />}
								<td style={{ whiteSpace: "nowrap" }}>
									<Button size="sm" onClick={() => change(t)} aria-label={`Change ${t.name}`}>
										Change
									</Button>{" "}
									<Remove kind={of.kind} id={t.id} name={t.name} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
				{of.caution && (
					<Box fontSize="small" mt="4" color="quiet">
						{of.caution}
					</Box>
				)}
			</Panel>
			<NoLonger kind={of.kind} things={state.away[of.kind]} />
			{changing && (
				<Dialog title={`Change ${changing.name}`} onClose={() => change(undefined)}>
					<Add
						label="Keep it so"
						save={async (f) => {
							await of.put(filled(of, f, changing));
							change(undefined);
						}}
					>
						<Fields of={of} t={changing} />
					</Add>
				</Dialog>
			)}
			<Panel title={`Add ${/^[aeiou]/.test(of.one) ? "an" : "a"} ${of.one}`}>
				<Add label={`Add the ${of.one}`} save={(f) => of.put(filled(of, f, { id: slug(String(f.get("name"))) }))}>
					<Fields of={of} />
				</Add>
			</Panel>
			<FromTable of={of} />
		</>
	);
}

function CountedCell({ t, of }: { t: Thing; of: KindOf }) {
	const c = of.count;
	if (!c) return null;
	return (
		<td style={{ whiteSpace: "nowrap" }}>
			<Counted label={`${t.name}, ${c.said}`} n={t[c.key] as number | undefined} save={(n) => of.put({ ...t, [c.key]: n ?? c.none })} /> {c.said}
		</td>
	);
}

function Fields({ of, t }: { of: KindOf; t?: Thing }) {
	return (
		<>
			{of.fields.map((f) => (
				<OneField key={f.key} f={f} v={t ? t[f.key] : f.begin} />
			))}
		</>
	);
}

function OneField({ f, v }: { f: FieldOf; v: unknown }) {
	const s = useSettings();
	const n = Number(v ?? f.begin ?? 0);
	switch (f.is) {
		case "length":
		case "thin":
			return <LengthField kind={f.is} label={f.label} name={f.key} mm={n} min={f.min} max={f.max} />;
		case "number":
			return <NumberEntry label={f.label} unit={f.unit} name={f.key} begin={n} min={f.min ?? 0} max={f.max ?? 1e6} help={f.help?.(s)} />;
		case "tick":
			return <Ticked f={f} begin={v === true} />;
		case "choice":
			return (
				<Select label={f.label} name={f.key} begin={v ? String(v) : f.none ? "" : f.of?.[0]}>
					{f.none && <option value="">{f.none}</option>}
					{f.of?.map((k) => (
						<option key={k}>{k}</option>
					))}
				</Select>
			);
		case "count":
			return <TextField label={f.label} name={f.key} inputMode="numeric" pattern="[0-9]*" defaultValue={v === undefined ? "" : String(v)} />;
		default:
			return (
				<TextField
					label={f.label}
					name={f.key}
					required={f.key === "name"}
					maxLength={f.key === "name" ? 120 : 80}
					type={f.is === "colour" ? "color" : "text"}
					defaultValue={String(v ?? "")}
				/>
			);
	}
}

function Ticked({ f, begin }: { f: FieldOf; begin: boolean }) {
	const [on, set] = useState(begin);
	return <Check label={f.label} name={f.key} on={on} set={set} />;
}

/** Things taken in from a table. */
function FromTable({ of }: { of: KindOf }) {
	const refresh = useRefresh();
	const [wrong, setWrong] = useState("");
	const [got, setGot] = useState<S["ShelfRead"]>();
	const read = async (f: File) => {
		setWrong("");
		setGot(undefined);
		try {
			setGot(await sendBytes<S["ShelfRead"]>(`/api/shelf/${of.kind}`, f, "text/plain"));
			await refresh("state", "card", "cards");
		} catch (e) {
			setWrong((e as Problem).message);
		}
	};
	return (
		<Panel title="Take them in from a table">
			<Box display="flex" gap="5" alignItems="center" flexWrap="wrap">
				<FileButton label="Choose a table (CSV)" accept={[".csv", ".txt"]} onFile={read} />
				<Box fontSize="small" color="quiet" flex="1" minW="280px">
					Its first line names the columns, as in the table you can take out. A length may have its unit: 8 1/2 in, 216 mm.
				</Box>
			</Box>
			{wrong && (
				<Box role="alert" color="madder" mt="4">
					{wrong}
				</Box>
			)}
			{got && (
				<Box mt="4" fontSize="small" role="status">
					<b>{got.added} taken in.</b>
					{got.notes.slice(0, 8).map((n) => (
						<Box key={n}>{n}.</Box>
					))}
					{got.notes.length > 8 && <Box>And {got.notes.length - 8} more like these.</Box>}
				</Box>
			)}
		</Panel>
	);
}
