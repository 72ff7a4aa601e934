import { Box, QrCode } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type S } from "../api/client";
import { screensKey, useScreens } from "../api/queries";
import { Button } from "../ui/button";
import Dialog from "../ui/dialog";

/** Lets a tablet or phone of the house in, to work from at the bench. */
export function ScreensButton() {
	const [open, setOpen] = useState(false);
	const screens = useScreens(open ? 3000 : undefined);
	if (screens.data?.guest) return null;
	const n = screens.data?.joined.length ?? 0;
	return (
		<>
			<Button onClick={() => setOpen(true)}>{n > 0 ? `${n} other ${n === 1 ? "screen" : "screens"}` : "Show on another screen"}</Button>
			{open && <ScreensDialog now={screens.data} onClose={() => setOpen(false)} />}
		</>
	);
}

function ScreensDialog({ now, onClose }: { now?: S["Screens"]; onClose: () => void }) {
	const q = useQueryClient();
	const [wrong, setWrong] = useState("");
	const run = async (work: () => Promise<S["Screens"]>) => {
		setWrong("");
		try {
			q.setQueryData(screensKey, await work());
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	return (
		<Dialog title="Show on another screen" onClose={onClose}>
			{!now?.on ? (
				<Box display="grid" gap="5">
					<Box>
						A tablet or phone in your own network can show the cards, tick their steps and write the log, while you go on planning here. Until you let it in,
						Ochrestone answers to nobody but this machine.
					</Box>
					<Box>What it shows passes through your network unlocked: use it at home, not in a café.</Box>
					<Box>
						<Button variant="main" onClick={() => run(() => ok(api.POST("/api/screens")))}>
							Let a screen in
						</Button>
					</Box>
				</Box>
			) : (
				<Box display="grid" gap="6">
					<Box display="flex" gap="8" flexWrap="wrap" alignItems="start">
						<QrCode.Root
							value={now.link ?? ""}
							role="img"
							aria-label="The address and the code, to be read by a camera"
							style={{ width: 184, height: 184, padding: 12, background: "#fff" }}
						>
							<QrCode.Frame style={{ width: "100%", height: "100%", display: "block" }}>
								<QrCode.Pattern style={{ fill: "#000" }} />
							</QrCode.Frame>
						</QrCode.Root>
						<Box display="grid" gap="3" flex="1" minW="240px">
							<Box>Point the camera of the other device here, or type into its browser:</Box>
							<Box fontWeight="600" fontSize="sub">
								{now.addresses.map((a) => (
									<div key={a}>{a.replace("http://", "")}</div>
								))}
							</Box>
							<Box>and then the code</Box>
							<Box fontFamily="mono" fontWeight="600" fontSize="title" letterSpacing=".12em" data-code={now.code}>
								{now.code?.slice(0, 4)} {now.code?.slice(4)}
							</Box>
							<Box color="quiet" fontSize="small">
								Each code lets one device in. Both must be in the same network.
							</Box>
						</Box>
					</Box>
					<Box as="ul" listStyleType="none" p="0" m="0" display="grid" gap="3" aria-label="Screens that are in">
						{now.joined.map((j) => (
							<li key={j.number} style={{ display: "flex", gap: 12, alignItems: "center" }}>
								<span style={{ flex: 1 }}>
									Screen {j.number}, in since {clock(j.at)}, last seen {clock(j.seen)}
								</span>
								<Button
									aria-label={`Take back screen ${j.number}`}
									onClick={() => run(() => ok(api.DELETE("/api/screens/{number}", { params: { path: { number: j.number } } })))}
								>
									Take back
								</Button>
							</li>
						))}
					</Box>
					{now.wrong.map((c) => (
						<Box key={c.from} color="madder">
							{c.n === 1 ? "A wrong code was" : `${c.n} wrong codes were`} typed at {c.from}, the last at {clock(c.at)}. Whoever is there has to wait; your own
							devices do not.
						</Box>
					))}
					<Box>
						<Button onClick={() => run(() => ok(api.DELETE("/api/screens")))}>Shut all out</Button>
					</Box>
				</Box>
			)}
			{wrong && (
				<Box role="alert" color="madder" mt="4">
					{wrong}
				</Box>
			)}
		</Dialog>
	);
}

const clock = (iso: string) => new Date(iso).toLocaleTimeString(undefined, { timeStyle: "short" });
