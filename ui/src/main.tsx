import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { ASKED, type Door, NoAnswer } from "./api/client";
import { daysChosen } from "./api/days";
import { doorAsked, jobsAsked } from "./api/workshop";
import { App } from "./app";
import { EnterView } from "./enter/EnterView";
import { codeInAddress, door, enter, sealed, usualName, wipe } from "./enter/entering";
import { keepLumso } from "./keep/away";
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

/** Ask for the code; a device that was turned out lets go of what it kept first. */
async function ask(at: Door, said = ""): Promise<void> {
  shown.render(null); // what keeps anything ends first
  window.scrollTo(0, 0); // wherever somebody was
  const waits = await (at.turned_out ? wipe() : sealed());
  shown.render(
    <StrictMode>
      <EnterView out={at.turned_out} lapsed={at.lapsed} waits={waits} said={said} />
    </StrictMode>,
  );
}

async function start(): Promise<void> {
  const code = codeInAddress();
  let said = "";
  // What the first view asks for goes out at once: whoever is asked for a code first has it refused, and asks again.
  if (location.pathname === "/") {
    void client.prefetchQuery(daysChosen);
    void client.prefetchInfiniteQuery(jobsAsked());
  }
  let at = await door();
  if (code && at?.asks) {
    await enter(code, usualName()).catch((error: Error) => {
      said = error.message;
    });
    at = await door();
  }
  if (at?.asks) return ask(at, said);
  if (at) client.setQueryData(doorAsked.queryKey, at);
  keepLumso(client);
  const keeping = await openKeeping(client);
  let asking = false;
  window.addEventListener(ASKED, () => {
    if (asking) return;
    asking = true;
    void door().then(async (now) => {
      if (now?.asks) {
        await keeping.stop();
        await ask(now);
      } else asking = false;
    });
  });
  shown.render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <KeepingProvider value={keeping}>
          {/* What a press does is there before the next key: in a transition, a letter typed at once went into the
              field that was just leaving. */}
          <BrowserRouter useTransitions={false}>
            <App />
          </BrowserRouter>
        </KeepingProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}

void start();
