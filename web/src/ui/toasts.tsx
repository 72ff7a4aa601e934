import { createToaster, Toast as Parts, Toaster } from "@chakra-ui/react";
import { said } from "./said";

const toaster = createToaster({ placement: "bottom-end", duration: 6000, max: 3 });
said.listen((words) => toaster.create({ title: words }));

/** Where what was done is said in passing. */
export default function Toasts() {
	return (
		<Toaster toaster={toaster}>
			{(t) => (
				<Parts.Root className="toast">
					<Parts.Title>{t.title}</Parts.Title>
					<Parts.CloseTrigger className="toast-shut" aria-label="Shut this message">
						×
					</Parts.CloseTrigger>
				</Parts.Root>
			)}
		</Toaster>
	);
}
