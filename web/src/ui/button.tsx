import { chakra } from "@chakra-ui/react";
import { button } from "./theme";

/** The one button of the product: plain, the main action of a station, or a link. */
export const Button = chakra("button", button, { defaultProps: { type: "button" } });
