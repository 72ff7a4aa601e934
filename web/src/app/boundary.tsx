import { Box } from "@chakra-ui/react";
import { Component, type ReactNode } from "react";
import { Button } from "../ui/button";
import { size } from "../ui/sizes";

/** A part of the page that went missing, as after the program was renewed. */
const lost = (e: Error) => /dynamically imported module|module script failed|Unable to preload/i.test(e.message);

/** Shows something plainer where a small part of the page fails, as a menu that cannot be fetched: not worth a word of its own. */
export class Quiet extends Component<{ plain?: ReactNode; children: ReactNode }, { fault: boolean }> {
	state = { fault: false };

	static getDerivedStateFromError() {
		return { fault: true };
	}

	render() {
		return this.state.fault ? this.props.plain : this.props.children;
	}
}

/** Holds a fault inside the part it rose in: the rest of the page goes on, and what to do is said. */
export class Boundary extends Component<{ what: string; onUndo?: () => void; children: ReactNode }, { fault?: Error }> {
	state: { fault?: Error } = {};

	static getDerivedStateFromError(fault: Error) {
		return { fault };
	}

	render() {
		const { fault } = this.state;
		const { what, onUndo, children } = this.props;
		if (!fault) return children;
		const again = () => this.setState({ fault: undefined });
		return (
			<Box py="11" px="12" maxW="720px" role="alert">
				<h1 style={{ fontSize: size.title }}>{lost(fault) ? "A part of the page is not there any more" : `${what} could not be drawn`}</h1>
				<Box my="5" fontSize="lead">
					{lost(fault)
						? "Ochrestone was renewed or stopped while this page was open. Every change that shows as saved is kept. Open the page anew; if it does not come, start Ochrestone again first."
						: "This is a fault of Ochrestone, not of your work: every change that shows as saved is kept. Go on at another station, take back the last change, or open the page anew."}
				</Box>
				<Box display="flex" gap="5" my="7">
					<Button variant="main" onClick={() => window.location.reload()}>
						Open the page anew
					</Button>
					{!lost(fault) && <Button onClick={again}>Try again</Button>}
					{!lost(fault) && onUndo && (
						<Button
							onClick={() => {
								onUndo();
								again();
							}}
						>
							Undo the last change
						</Button>
					)}
				</Box>
				<Box fontSize="small" color="quiet">
					What the browser said: {fault.message}
				</Box>
			</Box>
		);
	}
}
