import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** What is said while something is fetched, or when it cannot be. */
export function Waiting({ children }: { children: ReactNode }) {
	return (
		<Box p="13" color="quiet" fontSize="sub" role="status">
			{children}
		</Box>
	);
}
