import { Menu as Parts } from "@chakra-ui/react";

import { Button } from "./button";

/** A thing to be had from a menu: a file. */
export interface Given {
	title: string;
	href: string;
	/** Whether it opens beside the page, instead of being kept. */
	beside?: boolean;
}

/** A button with a menu of files: the arrow keys walk it, a letter jumps, Escape closes. */
export default function Menu({ label, items }: { label: string; items: Given[] }) {
	return (
		<Parts.Root positioning={{ placement: "bottom-end" }}>
			<Parts.Trigger asChild>
				<Button variant="main">{label}</Button>
			</Parts.Trigger>
			<Parts.Positioner>
				<Parts.Content
					bg="white"
					border="1px solid {colors.rule}"
					p="3"
					zIndex={20}
					w="300px"
					_focusVisible={{ outline: "3px solid {colors.ochre}", outlineOffset: "1px" }}
				>
					{items.map((g) => (
						<Parts.Item key={g.href} value={g.href} asChild>
							<a className="menu-item" href={g.href} {...(g.beside ? { target: "_blank", rel: "noreferrer" } : { download: true })}>
								{g.title}
							</a>
						</Parts.Item>
					))}
				</Parts.Content>
			</Parts.Positioner>
		</Parts.Root>
	);
}
