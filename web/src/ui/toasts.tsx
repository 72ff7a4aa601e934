import { createToaster, Toast as Parts, Toaster } from "@chakra-ui/react";
import { said } from "./said";

const toaster = createToaster({ placement: "bottom-end", duration: 6000, max: 3 });
said.listen((s) => toaster.create({ title: s.words, duration: s.undo ? 20000 : undefined, action: s.undo ? { label: "Undo", onClick: s.undo } : undefined }));

/** Where what was done is said in passing. */
export default function Toasts() {
	return (
		<Toaster toaster={toaster}>
			{(t) => (
				<Parts.Root className="toast">
					<Parts.Title>{t.title}</Parts.Title>
					{t.action && (
						<Parts.ActionTrigger className="toast-act" style={{ textDecoration: "underline", fontWeight: 600, cursor: "pointer" }}>
							{t.action.label}
						</Parts.ActionTrigger>
					)}
					<Parts.CloseTrigger className="toast-shut" aria-label="Shut this message">
						×
					</Parts.CloseTrigger>
				</Parts.Root>
			)}
		</Toaster>
	);
}
