import { Box } from "@chakra-ui/react";
import type { Off } from "./play";

/** The same move in numbers. */
export function Numbers({ off, onChange }: { off: Off; onChange: (o: Off) => void }) {
	const field = (label: string, key: keyof Off, unit: string, step: number) => (
		<label style={{ display: "flex", gap: 6, alignItems: "center", justifyContent: "flex-end" }}>
			{label}
			<input
				type="number"
				step={step}
				value={Math.round(off[key] * 100) / 100}
				style={{ width: 70 }}
				onChange={(e) => onChange({ ...off, [key]: Math.max(-50, Math.min(50, Number(e.target.value) || 0)) })}
			/>
			<span style={{ width: 22 }}>{unit}</span>
		</label>
	);
	return (
		<Box flex="none" display="flex" flexDirection="column" gap="2px">
			{field("right", "x", "mm", 0.1)}
			{field("down", "y", "mm", 0.1)}
			{field("turn", "t", "°", 0.2)}
		</Box>
	);
}
