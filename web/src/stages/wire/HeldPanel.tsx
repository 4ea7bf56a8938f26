/** What is in hand on the Wire stage: a camera's way, a box, a cable, a way that cables take. */
import type { SiteFile } from "../../core/types";
import { thingOf } from "../../model/kinds";
import { cameraOf } from "../../model/lookups";
import { CablePanel } from "./CablePanel";
import { CameraPanel } from "./CameraPanel";
import { NodePanel } from "./NodePanel";
import { PathPanel } from "./PathPanel";
import { useHeld } from "./held";

export function HeldPanel({ site }: { site: SiteFile }) {
  const held = useHeld(site);
  return (
    <aside className="evidence wire-held" aria-label="Selected">
      {held === null ? (
        <p className="hint">
          Choose a camera to see its way from the recorder; a box or a cable to change it. Drag boxes on the plan: the
          figures follow.
        </p>
      ) : (
        <Held key={`${held.kind}/${held.id}`} site={site} kind={held.kind} id={held.id} />
      )}
    </aside>
  );
}

function Held({ site, kind, id }: { site: SiteFile; kind: "node" | "cable" | "path" | "camera"; id: string }) {
  if (kind === "camera") {
    const camera = cameraOf(site, id);
    return camera ? <CameraPanel site={site} camera={camera} /> : null;
  }
  if (kind === "node") {
    const node = thingOf(site, "node", id);
    return node ? <NodePanel site={site} node={node} /> : null;
  }
  if (kind === "cable") {
    const cable = thingOf(site, "cable", id);
    return cable ? <CablePanel site={site} cable={cable} /> : null;
  }
  const path = thingOf(site, "path", id);
  return path ? <PathPanel path={path} /> : null;
}
