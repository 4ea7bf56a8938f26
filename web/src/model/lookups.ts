/** Things of a site by their ids. */
import type { Camera, CameraHead, HeadRef, Lens, Obstacle, Point, SiteFile, Target } from "../core/types";
import { mean } from "./points";

export const targetOf = (site: SiteFile, id: string): Target | undefined => site.targets.find((t) => t.id === id);

export const cameraOf = (site: SiteFile, id: string): Camera | undefined => site.cameras.find((c) => c.id === id);

export function headOf(site: SiteFile, camera: string, head: string): CameraHead | undefined {
  return cameraOf(site, camera)?.heads.find((h) => h.id === head);
}

/** The lens of a head: its own, else the model's. */
export const lensOf = (site: SiteFile, { camera, head }: HeadRef): Lens | undefined =>
  headOf(site, camera, head)?.lens ?? cameraOf(site, camera)?.model.lens;

export const obstacleOf = (site: SiteFile, id: string): Obstacle | undefined =>
  site.obstacles?.find((o) => o.id === id);

/** The middle of a target's points. */
export const middle = (target: Target): Point => mean(target.shape.points);
