import "@fontsource/barlow/400.css";
import "@fontsource/barlow/500.css";
import "@fontsource/barlow/600.css";
import "@fontsource/barlow-semi-condensed/500.css";
import "@fontsource/barlow-semi-condensed/600.css";
import "@fontsource/ibm-plex-mono/400.css";
import "@fontsource/ibm-plex-mono/600.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { workOffline } from "../keep/offline";
// The core is told of the firm's own models whichever screen is opened first.
import "../keep/ownCatalogue";
import { persist } from "../keep/shelf";
import { liveAsTab } from "../keep/tabs";
import { keepFocus } from "../ui/keepFocus";
import { startCore } from "../core/hands";
import { App } from "./App";
import "../ui/ui.css";
import "./paper.css";
import "../ui/touch.css";

liveAsTab();
workOffline();
void persist();
keepFocus();
// A site needs the core at once; the list does not: it is got ready once all else has come.
if (location.hash.startsWith("#/site/")) startCore();
else
  window.addEventListener("load", () => {
    // Not every browser tells when it is idle.
    if ("requestIdleCallback" in window) window.requestIdleCallback(startCore);
    else setTimeout(startCore, 500);
  });
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
