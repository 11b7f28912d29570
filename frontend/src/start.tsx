import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Problem } from "./api/problem";
import { sessionQuery } from "./api/queries";
import { Addresses } from "./Addresses";
import { viewAt } from "./routes";
import { beginTheme } from "./ui/theme";
import { Toasts } from "./ui/Toasts";
import "./ui/theme.css";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      // While the server is away every read goes on trying; anything else it said is its answer.
      retry: (_, error) => error instanceof Problem && error.away,
      retryDelay: 3000,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

beginTheme();
// Asked for with the page already: it is there before anything is drawn.
void queries.query(sessionQuery).catch(() => undefined);
const root = document.getElementById("root");
/** All at once, with the view of the address: what the server drew to begin with stands until then. */
function begin(place: HTMLElement) {
  createRoot(place).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <Toasts>
          <Addresses />
        </Toasts>
      </QueryClientProvider>
    </StrictMode>,
  );
}
if (root) {
  const first = viewAt(window.location.pathname)?.load() ?? Promise.resolve();
  void first.catch(() => undefined).then(() => begin(root));
}
