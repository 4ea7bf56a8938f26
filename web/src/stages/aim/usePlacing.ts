/** What a tap on the plan does: puts a new target, camera or obstacle down, or points at a place. */
import { ask } from "../../core/port";
import type { Point } from "../../core/types";
import { useSite } from "../../keep/store";
import { putCamera } from "../../model/cameras";
import { useInHand } from "../../model/inHand";
import { addLamp } from "../../model/lamps";
import { addObstacle } from "../../model/obstacles";
import { addTarget } from "../../model/targets";
import { usePlanView } from "../../plan/planView";
import { putBoxCorner, putPoint, snapped } from "./draw/drawing";
import { useGroundView } from "./ground/groundView";

/** A camera put down this near to a spot sits on it, px. */
const SNAP = 22;

export function usePlacing(): (where: Point) => void {
  return (where) => {
    const { placing, target, takeTarget, takeObstacle, takeLamp } = useInHand.getState();
    const { edit } = useSite.getState();
    let made = "";
    if (placing === "target") {
      edit("Add a target", (site) => {
        made = addTarget(site, where);
      });
      takeTarget(made);
    } else if (placing === "obstacle") {
      edit("Add an obstacle", (site) => {
        made = addObstacle(site, where);
      });
      takeObstacle(made);
    } else if (placing === "lamp") {
      edit("Add a lamp", (site) => {
        made = addLamp(site, where);
      });
      takeLamp(made);
    } else if (placing === "camera") void placeCamera(where, target);
    else if (placing === "draw") {
      const { open } = useSite.getState();
      if (open) putPoint(snapped(open.site, where));
    } else if (placing === "box") {
      const { open } = useSite.getState();
      if (open) putBoxCorner(open.site, where);
    } else if (placing === "why") useGroundView.getState().set({ asked: where });
    else if (placing === "goal") {
      useGroundView.getState().set({ goal: where });
      useInHand.getState().place(null);
    }
  };
}

/** The core says what a camera put down there is, and how it is aimed at the promise in hand. */
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
