/** What is in hand on the Wire stage: a camera, or a thing of the network. */
import type { SiteFile } from "../../core/types";
import { useInHand } from "../../model/inHand";
import { cameraOf } from "../../model/lookups";
import { type ThingRef, thingOf } from "../../model/kinds";

export type WireHeld = ThingRef<"node" | "cable" | "path" | "camera">;

const OF_THE_NETWORK = ["node", "cable", "path"];

/** What is in hand, if the site has it. */
export function useHeld(site: SiteFile): WireHeld | null {
  const thing = useInHand((state) => state.thing);
  const head = useInHand((state) => state.head);
  if (thing && OF_THE_NETWORK.includes(thing.kind) && thingOf(site, thing.kind, thing.id)) return thing as WireHeld;
  return head && cameraOf(site, head.camera) ? { kind: "camera", id: head.camera } : null;
}

export function take(held: WireHeld | null, site: SiteFile): void {
  const { take: takeThing, takeHead } = useInHand.getState();
  if (held?.kind !== "camera") return takeThing(held);
  const head = cameraOf(site, held.id)?.heads[0];
  if (head) takeHead({ camera: held.id, head: head.id });
}
