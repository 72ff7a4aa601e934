import { Splitter as Parts } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";

interface SplitterProps {
	/** Under which the share is remembered. */
	id: string;
	label: string;
	/** The share of the first part at the start, its least and its most, 0 to 100. */
	begin: number;
	least: number;
	most: number;
	first: ReactNode;
	second: ReactNode;
}

/** Two parts side by side with a bar between that is dragged, or moved with the arrow keys; where it was left is remembered. */
export function Splitter({ id, label, begin, least, most, first, second }: SplitterProps) {
	const key = `split ${id}`;
	const [share] = useState(() => {
		const kept = Number(localStorage.getItem(key));
		return kept >= least && kept <= most ? kept : begin;
	});
	// On a phone one stands over the other.
	if (window.innerWidth <= 760)
		return (
			<div>
				{first}
				{second}
			</div>
		);
	return (
		<Parts.Root
			className="splitter"
			panels={[
				{ id: "first", minSize: least, maxSize: most },
				{ id: "second", minSize: 100 - most },
			]}
			defaultSize={[share, 100 - share]}
			keyboardResizeBy={1}
			onResizeEnd={(d) => localStorage.setItem(key, `${d.size[0]}`)}
		>
			<Parts.Panel id="first">{first}</Parts.Panel>
			<Parts.ResizeTrigger id="first:second" aria-label={label} className="splitter-bar">
				<Parts.ResizeTriggerIndicator className="splitter-grip" />
			</Parts.ResizeTrigger>
			<Parts.Panel id="second">{second}</Parts.Panel>
		</Parts.Root>
	);
}
