import { lazy, Suspense } from "react";
import { useDocument } from "../api/card";
import { Button } from "../ui/button";
import { useLate } from "../ui/late";
import { Quiet } from "./boundary";

const Menu = lazy(() => import("../ui/menu"));
const label = "Print and save";

/** What can be printed and saved of the card. */
export function SaveMenu() {
	const b = useDocument();
	const at = `/api/cards/${b.view.id}`;
	const late = useLate();
	const plain = (
		<Button variant="main" disabled>
			{label}
		</Button>
	);
	if (!late) return plain;
	return (
		<Quiet plain={plain}>
			<Suspense fallback={plain}>
				<Menu
					label={label}
					items={[
						{ title: "Layering guide and work sheet (PDF)", href: `${at}/sheet.pdf`, beside: true },
						{ title: "Hand-out: this card, to teach or give away (PDF)", href: `${at}/handout.pdf`, beside: true },
						{ title: "This card, to carry elsewhere (.ochre)", href: `${at}/card.ochre` },
						{ title: "Ink recipe (CSV)", href: `${at}/recipe.csv` },
						{ title: "Its dried colours (GPL palette)", href: `${at}/recipe.gpl` },
						{ title: "The front as a drawing (SVG, mm)", href: `${at}/front.svg` },
						{ title: "Layout with its distances (PDF)", href: `${at}/layout.pdf`, beside: true },
						{ title: "Pad plan with levels (PDF)", href: `${at}/pads.pdf`, beside: true },
						{ title: "Pad plan, from the back (PDF)", href: `${at}/pads.pdf?mirrored=1`, beside: true },
						{ title: "Pad plan (SVG, mm)", href: `${at}/pads.svg` },
						{ title: "Placement template (PDF)", href: `${at}/placement.pdf`, beside: true },
						{ title: "Placement template, mirrored (PDF)", href: `${at}/placement.pdf?mirrored=1`, beside: true },
						{ title: "Cut lines of sheets and letters (SVG, mm)", href: `${at}/cut.svg` },
						{ title: "The front as a picture (PNG, 300 dpi)", href: `${at}/front.png` },
					]}
				/>
			</Suspense>
		</Quiet>
	);
}
