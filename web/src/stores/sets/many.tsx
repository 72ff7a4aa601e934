import { Box } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { type Problem, type S, sendBytes } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Button } from "../../ui/button";
import { FilesButton } from "../../ui/file";
import { Select } from "../../ui/select";

/** What became of one drawing. */
interface Came {
	name: string;
	said: string;
	wrong?: boolean;
}

/** Many drawings taken in one after another, each a set of its own: what cannot be read is told and the rest goes on. */
export function ManyDrawings({ has }: { has: string[] }) {
	const refresh = useRefresh();
	const [kind, setKind] = useState("die");
	const [at, setAt] = useState<{ n: number; of: number }>();
	const [came, setCame] = useState<Came[]>([]);
	const stop = useRef(false);
	const take = async (files: File[]) => {
		stop.current = false;
		const out: Came[] = [];
		const names = new Set(has.map((n) => n.toLowerCase()));
		if (files.length === 0) out.push({ name: "The folder", said: "holds no drawing (SVG)", wrong: true });
		for (const [i, f] of files.entries()) {
			if (stop.current) {
				out.push({ name: `${files.length - i} more`, said: "not looked at: stopped", wrong: true });
				break;
			}
			setAt({ n: i + 1, of: files.length });
			const name = f.name.replace(/\.svg$/i, "");
			if (names.has(name.toLowerCase())) {
				out.push({ name, said: "is there already and was left as it is", wrong: true });
				continue;
			}
			try {
				const set = await sendBytes<S["Imported"]>(`/api/import/set?${new URLSearchParams({ name, kind })}`, await f.text(), "image/svg+xml");
				names.add(name.toLowerCase());
				out.push({
					name,
					said: `${set.parts.length} ${set.parts.length === 1 ? "part" : "parts"}${set.sizes.length > 1 ? "; the drawing does not say its size: measure a piece" : ""}`,
					wrong: set.sizes.length > 1,
				});
			} catch (e) {
				out.push({ name, said: (e as Problem).message, wrong: true });
			}
		}
		setAt(undefined);
		setCame(out);
		await refresh("state");
	};
	const good = came.filter((c) => /^\d+ part/.test(c.said)).length;
	const told = came.filter((c) => c.wrong);
	return (
		<Box mt="6" pt="5" borderTop="1px solid {colors.line}">
			<Box display="flex" gap="5" alignItems="end" flexWrap="wrap">
				<FilesButton label="Many drawings at once" accept={[".svg"]} onFiles={take} />
				<FilesButton label="A whole folder" accept={[".svg"]} folder onFiles={take} />
				<Select label="They are" value={kind} onChange={setKind}>
					<option value="die">die sets</option>
					<option value="stamp">stamp sets</option>
					<option value="stencil">stencil sets</option>
				</Select>
				{at && (
					<>
						<span role="status">
							{at.n} of {at.of}…
						</span>
						<Button
							onClick={() => {
								stop.current = true;
							}}
						>
							Stop
						</Button>
					</>
				)}
			</Box>
			{came.length > 0 && !at && (
				<Box fontSize="small" mt="4" role="status">
					<b>
						{good} {good === 1 ? "set" : "sets"} taken in, each named as its file.
					</b>
					{told.slice(0, 12).map((c) => (
						<div key={c.name}>
							{c.name}: {c.said}
						</div>
					))}
					{told.length > 12 && <div>And {told.length - 12} more like these.</div>}
				</Box>
			)}
		</Box>
	);
}
