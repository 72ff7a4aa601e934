import { Dialog as Parts } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Button } from "./button";

/** A sheet over the page: the focus stays in it, Escape shuts it and gives the focus back. */
export default function Dialog({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
	return (
		<Parts.Root open onOpenChange={(d) => !d.open && onClose()} scrollBehavior="inside">
			<Parts.Backdrop className="dialog-back" />
			<Parts.Positioner className="dialog-place">
				<Parts.Content className="dialog">
					<Parts.Header className="dialog-head">
						<Parts.Title>{title}</Parts.Title>
						<Parts.CloseTrigger asChild>
							<Button>Close</Button>
						</Parts.CloseTrigger>
					</Parts.Header>
					<Parts.Body className="dialog-body">{children}</Parts.Body>
				</Parts.Content>
			</Parts.Positioner>
		</Parts.Root>
	);
}
