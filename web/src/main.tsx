import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import "@fontsource/atkinson-hyperlegible-next/latin-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-700.css";
import "@fontsource/bricolage-grotesque/latin-600.css";
import "@fontsource/bricolage-grotesque/latin-700.css";
import "./ui/style.css";
import { early } from "./api/queries";
import { App } from "./app/app";
import { stations } from "./app/stations";
import { apply, look } from "./ui/page";
import { system } from "./ui/theme";

apply(look());

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5000, refetchOnWindowFocus: true } } });

// What the place needs is on its way while the page is still being put together; where it
// comes soon the page is drawn once, with it.
const [, place, card, station] = location.pathname.split("/");
const first = stations.find((s) => place === "card" && s.id === (station ?? "pieces"));
const needed = Promise.all([early(queries, place === "card" ? card : undefined), first?.load()]);
const patience = new Promise((r) => setTimeout(r, 350));
Promise.race([needed, patience])
	.catch(() => {}) // what could not be had is said where it is shown
	.then(draw);

function draw() {
	createRoot(document.getElementById("root")!).render(
		<StrictMode>
			<ChakraProvider value={system}>
				<QueryClientProvider client={queries}>
					<BrowserRouter>
						<App />
					</BrowserRouter>
				</QueryClientProvider>
			</ChakraProvider>
		</StrictMode>,
	);
}
