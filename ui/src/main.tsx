import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { NoAnswer } from "./api/client";
import { App } from "./app";
import { KeepingProvider } from "./keep/hooks";
import { openKeeping } from "./keep/keeping";
import "./theme.css";

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 0,
      retry: 1,
      refetchOnWindowFocus: false,
      // What was not answered is asked again until it is.
      refetchInterval: (query) => (query.state.error instanceof NoAnswer ? 3000 : false),
    },
  },
});

const root = document.getElementById("root");
if (!root) throw new Error("The page has no #root.");
const shown = createRoot(root);
void openKeeping(client).then((keeping) =>
  shown.render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <KeepingProvider value={keeping}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </KeepingProvider>
      </QueryClientProvider>
    </StrictMode>,
  ),
);
