import { Box } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { useBench } from "../../api/card";
import { api, ok, type S } from "../../api/client";
import { useMarks } from "../../api/queries";
import { Button } from "../../ui/button";
import { hue } from "../../ui/colours";

interface Mark {
	layer: string;
	label: string;
	at: { x: number; y: number };
	where: string;
	n: number;
}

/** Corners pointed at by hand in a picture that cannot be read: which corner is wanted is shown on the design. */
export function Pointing({
	picture,
	dpi,
	onDone,
	onClose,
}: {
	picture: Blob;
	dpi: number;
	onDone: (p: S["ProofedPrint"], against: string) => void;
	onClose: () => void;
}) {
	const b = useBench();
	const [motif, colourway] = [b.motif?.id ?? "", b.colourway?.id ?? ""];
	const marks = useMarks({ id: b.view.id, version: b.view.version, motif, colourway });
	const [url, setUrl] = useState("");
	useEffect(() => {
		const u = URL.createObjectURL(picture);
		setUrl(u);
		return () => URL.revokeObjectURL(u);
	}, [picture]);
	const [size, setSize] = useState({ w: 0, h: 0 });
	const [zoom, setZoom] = useState(1);
	const [room, setRoom] = useState(0);
	const [set, setSet] = useState<Record<string, { x: number; y: number }>>({});
	const [at, setAt] = useState(0);
	const [wrong, setWrong] = useState("");
	const all: Mark[] = useMemo(
		() => (marks?.layers ?? []).flatMap((l) => l.points.map((p, n) => ({ layer: l.layer, label: l.label, at: { x: p.x, y: p.y }, where: p.where, n: n + 1 }))),
		[marks],
	);
	const key = (m: Mark) => `${m.layer} ${m.n}`;
	const now = all[at];
	const put = (e: React.PointerEvent<HTMLImageElement>) => {
		const r = e.currentTarget.getBoundingClientRect();
		if (!now || r.width === 0) return;
		setSet({ ...set, [key(now)]: { x: ((e.clientX - r.left) / r.width) * size.w, y: ((e.clientY - r.top) / r.height) * size.h } });
		setAt(Math.min(all.length - 1, at + 1));
	};
	/** Arrow keys move the point by a pixel, with Shift by ten; Enter goes on to the next. */
	const nudge = (e: React.KeyboardEvent) => {
		if (!now || size.w === 0) return;
		const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
		if (by) {
			e.preventDefault();
			e.stopPropagation();
			const from = set[key(now)] ?? { x: size.w / 2, y: size.h / 2 };
			const step = e.shiftKey ? 10 : 1;
			setSet({ ...set, [key(now)]: { x: from.x + by[0] * step, y: from.y + by[1] * step } });
		} else if (e.key === "Enter") {
			e.preventDefault();
			setAt(Math.min(all.length - 1, at + 1));
		}
	};
	const ready = (marks?.layers ?? []).filter((l) => all.filter((m) => m.layer === l.layer && set[key(m)]).length >= 2);
	const first = marks?.layers[0];
	const fit = ready.length > 1 && ready[0].layer === first?.layer;
	const measure = async () => {
		setWrong("");
		try {
			const layers = ready.map((l) => {
				const ms = all.filter((m) => m.layer === l.layer && set[key(m)]);
				return { layer: l.layer, design: ms.map((m) => m.at), seen: ms.map((m) => set[key(m)]) };
			});
			onDone(
				await ok(api.POST("/api/cards/{id}/points", { params: { path: { id: b.view.id } }, body: { motif, colourway, dpi, layers } })),
				first?.label ?? "",
			);
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	if (!marks || !now)
		return (
			<Box py="4" px="9" fontSize="small" display="flex" gap="5" alignItems="center">
				{marks
					? "This image has no corners to point at: everything on it is round. Mark two points on every stamp, or scan it better."
					: "Looking for corners to point at."}
				<Button onClick={onClose}>Leave it</Button>
			</Box>
		);
	const look = b.look;
	const l = look?.layers.find((x) => x.id === now.layer);
	return (
		<Box display="flex" flexDirection="column" flex="1" minH={0} fontSize="small">
			<Box display="flex" gap="5" alignItems="start" py="4" px="9" bg="sheet">
				{look && l && (
					<svg
						viewBox={`${look.minX - 3} ${look.minY - 3} ${look.w + 6} ${look.h + 6}`}
						width={120}
						height={120}
						role="img"
						aria-label={`${now.label}, ${now.where}`}
					>
						<path d={look.silhouette} fill={hue.ground} />
						<path d={l.outline} fill={hue.bench} fillRule="evenodd" stroke={hue.text} strokeWidth={look.w / 160} />
						<circle cx={now.at.x} cy={now.at.y} r={look.w / 26} fill="none" stroke={hue.madder} strokeWidth={look.w / 60} />
					</svg>
				)}
				<Box flex="1">
					<b>
						{now.label}, corner {now.n}: the {now.where}.
					</b>{" "}
					Click it in the picture, or move it there with the arrow keys. {at + 1} of {all.length}; two on each layer are enough.
					<Box display="flex" gap="2" mt="2" flexWrap="wrap">
						<Button disabled={at === 0} onClick={() => setAt(at - 1)}>
							Back
						</Button>
						<Button disabled={at >= all.length - 1} onClick={() => setAt(at + 1)}>
							Leave it out
						</Button>
						<Button onClick={() => setZoom(zoom < 4 ? zoom * 2 : 1)}>{zoom < 4 ? "Larger" : "Whole"}</Button>
					</Box>
				</Box>
			</Box>
			<Box
				overflow="auto"
				flex="1"
				minH={0}
				bg="table"
				position="relative"
				tabIndex={0}
				aria-label="The print: arrow keys move the point, Enter goes on"
				onKeyDown={nudge}
				ref={(el: HTMLDivElement | null) => {
					if (el && el.clientHeight !== room) setRoom(el.clientHeight);
				}}
			>
				<Box position="relative" my="0" mx="auto" w={`${(size.h > 0 ? Math.min(1, room / size.h) * size.w : 400) * zoom}px`}>
					{url && (
						<img
							src={url}
							alt="The print"
							style={{ width: "100%", display: "block", cursor: "crosshair", touchAction: "pan-x pan-y" }}
							onLoad={(e) => setSize({ w: e.currentTarget.naturalWidth, h: e.currentTarget.naturalHeight })}
							onPointerUp={put}
							draggable={false}
						/>
					)}
					{size.w > 0 &&
						all.map((m) => {
							const p = set[key(m)];
							return p ? (
								<Box
									key={key(m)}
									position="absolute"
									pointerEvents="none"
									left={`${(100 * p.x) / size.w}%`}
									top={`${(100 * p.y) / size.h}%`}
									w="11px"
									h="11px"
									style={{ marginLeft: -5.5, marginTop: -5.5 }}
									border="2px solid"
									borderColor={m.layer === now.layer ? "madder" : "text"}
									borderRadius="50%"
								/>
							) : null;
						})}
				</Box>
			</Box>
			<Box display="flex" gap="5" alignItems="center" py="4" px="9" bg="sheet">
				<Button variant="main" disabled={!fit} onClick={measure}>
					Measure by these points
				</Button>
				<Button onClick={onClose}>Leave it</Button>
				{!fit && <span>Point at two corners of {first?.label} and of one other layer at least.</span>}
			</Box>
			{wrong && (
				<Box role="alert" color="madder">
					{wrong}
				</Box>
			)}
		</Box>
	);
}
