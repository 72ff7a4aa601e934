import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";
import { useLate } from "../ui/late";
import { Waiting } from "../ui/waiting";
import { BenchPage } from "./bench/page";
import { Boundary, Quiet } from "./boundary";
import { CardPage } from "./card";
import { Shell } from "./shell";

const Stores = lazy(() => import("../stores/page"));
const Toasts = lazy(() => import("../ui/toasts"));
const Looks = lazy(() => import("./looks"));
const Scan = lazy(() => import("../stores/sets/scan/page"));

/** The places of the product. */
export function App() {
	const late = useLate();
	return (
		<Boundary what="This page">
			<Suspense fallback={<Waiting>Laying things out…</Waiting>}>
				<Routes>
					<Route
						path="/"
						element={
							<Shell at="bench">
								<BenchPage />
							</Shell>
						}
					/>
					<Route path="/stores" element={<Navigate to="/stores/inks" replace />} />
					<Route path="/stores/sets/scan" element={<Shell at="stores">{<Scan />}</Shell>} />
					<Route path="/stores/:shelf" element={<Shell at="stores">{<Stores />}</Shell>} />
					<Route path="/looks-for" element={<Shell at="looks">{<Looks />}</Shell>} />
					<Route path="/card/:id" element={<Navigate to="pieces" replace />} />
					<Route path="/card/:id/:station" element={<CardPage />} />
					<Route path="*" element={<Navigate to="/" replace />} />
				</Routes>
			</Suspense>
			<Quiet>
				<Suspense>{late && <Toasts />}</Suspense>
			</Quiet>
		</Boundary>
	);
}
