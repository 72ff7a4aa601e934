import { Slider as Parts } from "@chakra-ui/react";

interface SliderProps {
	label: string;
	v: number;
	set: (n: number) => void;
	min: number;
	max: number;
	step: number;
	/** What a value is called, for readers. */
	say?: (n: number) => string;
	width?: string;
}

/** A value dragged along a line, or stepped with the arrow keys. */
export function Slider({ label, v, set, min, max, step, say, width = "100%" }: SliderProps) {
	return (
		<Parts.Root
			aria-label={[label]}
			value={[v]}
			min={min}
			max={max}
			step={step}
			// As the style has it: measuring it would hold up the first picture.
			thumbSize={{ width: 24, height: 24 }}
			thumbAlignment="center"
			onValueChange={(d) => set(d.value[0])}
			getAriaValueText={say && ((d) => say(d.value))}
			className="slider"
			style={{ width }}
		>
			<Parts.Control>
				<Parts.Track>
					<Parts.Range />
				</Parts.Track>
				<Parts.Thumb index={0}>
					<Parts.HiddenInput />
				</Parts.Thumb>
			</Parts.Control>
		</Parts.Root>
	);
}
