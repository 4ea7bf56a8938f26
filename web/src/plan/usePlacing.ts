/** Puts a new target, camera or obstacle on the plan. */
import { useEffect, useState } from "react";
import { serverEngine } from "../engine/engine";
import type { Model, Point } from "../engine/types";
import { addCamera, addObstacle, addTarget, targetOf } from "../site/edits";
import { useSite } from "../site/store";
import { useInHand } from "../aim/inHand";
import { toSite, usePlanView } from "./planView";

/** The model that a new camera begins with: a common one that the dials then change. */
const FIRST_MODEL = "Turret 4 MP 2.8–12 mm";

/** A camera put down this near to a spot sits on it, px. */
const SNAP = 22;

let shelf: Promise<Model[]> | undefined;

/** The catalogue, asked once; asked again after a failure. */
export function useCatalogue(): Model[] {
  const [models, setModels] = useState<Model[]>([]);
  useEffect(() => {
    const control = new AbortController();
    shelf ??= serverEngine.catalogue(new AbortController().signal);
    shelf.then((found) => !control.signal.aborted && setModels(found)).catch(() => { shelf = undefined; });
    return () => control.abort();
  }, []);
  return models;
}

export function usePlacing(): (at: Point) => void {
  const models = useCatalogue();
  return (at) => {
    const { placing, target, takeTarget, takeHead, takeObstacle } = useInHand.getState();
    const where = toSite(usePlanView.getState(), at);
    const { edit } = useSite.getState();
    let made = "";
    if (placing === "target") {
      edit("Add a target", (site) => { made = addTarget(site, where); });
      takeTarget(made);
    } else if (placing === "obstacle") {
      edit("Add an obstacle", (site) => { made = addObstacle(site, where); });
      takeObstacle(made);
    } else if (placing === "camera") {
      const model = models.find((m) => m.name === FIRST_MODEL) ?? models[0];
      if (!model) return;
      edit("Add a camera", (site) => { made = addCamera(site, where, SNAP / usePlanView.getState().scale, model, target ? targetOf(site, target) : undefined); });
      takeHead({ camera: made, head: "h1" });
    }
  };
}
