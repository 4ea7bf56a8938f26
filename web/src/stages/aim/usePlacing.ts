/** What a tap on the plan does: puts a new target, camera or obstacle down, or points at a place. */
import { ask } from "../../core/port";
import type { Point } from "../../core/types";
import { useSite } from "../../keep/store";
import { madeOf } from "../../keep/things";
import { putCamera } from "../../model/cameras";
import { useInHand } from "../../model/inHand";
import { KINDS } from "../../model/kinds";
import { usePlanView } from "../../plan/planView";
import { putBoxCorner, putPoint, snapped } from "./draw/drawing";
import { useGroundView } from "./ground/groundView";

/** A camera put down this near to a spot sits on it, px. */
const SNAP = 22;

export function usePlacing(): (where: Point) => void {
  return (where) => {
    const { placing, target, place } = useInHand.getState();
    const site = useSite.getState().open?.site;
    if (!placing || !site) return;
    if (placing === "camera") void placeCamera(where, target);
    else if (placing === "draw") putPoint(snapped(site, where));
    else if (placing === "box") putBoxCorner(site, where);
    else if (placing === "why") useGroundView.getState().set({ asked: where });
    else if (placing === "goal") {
      useGroundView.getState().set({ goal: where });
      place(null);
    } else placeThing(placing, where);
  };
}

/** Puts a usual thing of a kind down and takes it in hand. */
function placeThing(kind: "target" | "obstacle" | "lamp", where: Point): void {
  const { word, add } = KINDS[kind];
  const made =
    add && madeOf(`Add ${/^[aeiou]/.test(word) ? "an" : "a"}`, { id: "", name: word }, (site) => add(site, where));
  if (!made) return;
  const { takeTarget, take } = useInHand.getState();
  if (kind === "target") takeTarget(made);
  else take({ kind, id: made });
}

/** The core says what a camera put down there is, and how it is aimed at the selected promise. */
async function placeCamera(where: Point, target: string | null): Promise<void> {
  const { open, edit } = useSite.getState();
  if (!open) return;
  const camera = await ask(open.site, {
    ask: "new_camera",
    at: where,
    reach_m: SNAP / usePlanView.getState().scale,
    target,
  });
  if (useSite.getState().open?.id !== open.id) return;
  edit("Add a camera", (site) => putCamera(site, camera));
  useInHand.getState().takeHead({ camera: camera.id, head: camera.heads[0]?.id ?? "h1" });
}
