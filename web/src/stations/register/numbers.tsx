import { Box } from "@chakra-ui/react";
import { LengthField } from "../../ui/length";
import { NumberField } from "../../ui/number";
import type { Off } from "./play";

const most = 50;

/** The same move in numbers. */
export function Numbers({ off, onChange }: { off: Off; onChange: (o: Off) => void }) {
	return (
		<Box flex="none" display="flex" gap="4" alignItems="end">
			<LengthField kind="thin" label="Right" mm={off.x} onSet={(x) => onChange({ ...off, x })} min={-most} max={most} width="68px" />
			<LengthField kind="thin" label="Down" mm={off.y} onSet={(y) => onChange({ ...off, y })} min={-most} max={most} width="68px" />
			<NumberField label="Turn" unit="°" v={Math.round(off.t * 100) / 100} set={(t) => onChange({ ...off, t })} min={-180} max={180} step={0.2} width="68px" />
		</Box>
	);
}
