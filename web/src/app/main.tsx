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
import { persist } from "../keep/shelf";
import { liveAsTab } from "../keep/tabs";
import { keepFocus } from "../ui/keepFocus";
import { startCore } from "../core/hands";
import { App } from "./App";
import "../ui/ui.css";
import "./paper.css";
import "../ui/touch.css";

startCore();
liveAsTab();
workOffline();
void persist();
keepFocus();
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
