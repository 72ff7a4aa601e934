import { Tabs as Parts } from "@chakra-ui/react";
import { type ReactNode, useRef } from "react";

/** One leaf of a set of tabs. What is kept stays as it was while another is open. */
export interface Tab<Id extends string> {
	id: Id;
	title: string;
	keep?: boolean;
	body: ReactNode;
}

/** Tabs that fill their room: the arrow keys, Home and End walk them, what is open scrolls. */
export function Tabs<Id extends string>({ label, tabs, value, onChange }: { label: string; tabs: Tab<Id>[]; value: Id; onChange: (id: Id) => void }) {
	// A leaf that is kept is made when it is first opened.
	const opened = useRef(new Set<Id>());
	opened.current.add(value);
	return (
		<Parts.Root value={value} onValueChange={(e) => onChange(e.value as Id)} display="flex" flexDirection="column" minH={0} flex="1">
			<Parts.List aria-label={label} display="flex" gap="1" pt="3" px="5" pb="0" flexWrap="wrap" borderBottom="1px solid {colors.line}" flex="none">
				{tabs.map((t) => (
					<Parts.Trigger key={t.id} value={t.id} className="side-tab">
						{t.title}
					</Parts.Trigger>
				))}
			</Parts.List>
			{tabs.map((t) => (
				<Parts.Content
					key={t.id}
					value={t.id}
					flex="1"
					minH={0}
					overflowY="auto"
					py="5"
					px="8"
					_focusVisible={{ outline: "3px solid {colors.ochre}", outlineOffset: "-3px" }}
				>
					{(t.id === value || (t.keep && opened.current.has(t.id))) && t.body}
				</Parts.Content>
			))}
		</Parts.Root>
	);
}
