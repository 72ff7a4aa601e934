import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { type S, takePicture } from "../../../api/client";
import { useDeviceSets } from "../../../api/queries";
import { Button } from "../../../ui/button";
import { Check } from "../../../ui/check";
import { FileButton, pictures } from "../../../ui/file";
import { size } from "../../../ui/sizes";
import { type Settings, thin } from "../../../ui/units";

interface Props {
	/** What the picture showed, once there is one. */
	shown?: S["Shown"];
	/** How many pieces there are. */
	pieces: number;
	name: string;
	demo: boolean;
	busy: boolean;
	settings: Settings;
	/** Whether the picture is seen through the pieces. */
	through: boolean;
	onThrough: (v: boolean) => void;
	onPicture: (file: Blob) => void;
}

/** A picture of the finished image to go by: a pack's cover, or a card already made. */
export function FinishedPicture({ shown, pieces, name, demo, busy, settings, through, onThrough, onPicture }: Props) {
	const sets = useDeviceSets(demo);
	const [wrong, setWrong] = useState("");
	const same = sets.data?.find((s) => s.name === name);
	const simulated = async () => {
		setWrong("");
		try {
			onPicture(await takePicture(`/api/device/finished?${new URLSearchParams({ set: same?.id ?? "", seed: "1" })}`));
		} catch (e) {
			setWrong((e as Error).message);
		}
	};
	return (
		<Box borderTop="1px solid {colors.line}" pt="5" display="grid" gap="3">
			<h2 style={{ fontSize: size.sub }}>Is there a picture of it finished?</h2>
			{shown ? (
				<Box fontSize="small">
					{shown.found} of {pieces} pieces were made out in it; its edge and that of the set lie {thin(shown.fit, settings)} apart. They lie where it shows
					them, in the colours it shows.
				</Box>
			) : (
				<Box fontSize="small" color="quiet">
					A pack's cover or a card already made, from straight above on plain ground, all of it in view: the pieces then go where it shows them. The picture
					stays on this machine.
				</Box>
			)}
			<Box display="flex" gap="4" flexWrap="wrap" alignItems="center" aria-busy={busy}>
				<FileButton label={shown ? "Another picture of it" : "Go by a picture"} accept={pictures} onFile={onPicture} />
				{demo && same && !shown && (
					<Button disabled={busy} onClick={simulated}>
						Simulated picture
					</Button>
				)}
				{shown && <Check label="See it through the pieces" on={through} set={onThrough} />}
			</Box>
			{wrong && (
				<Box role="alert" color="madder">
					{wrong}
				</Box>
			)}
		</Box>
	);
}
