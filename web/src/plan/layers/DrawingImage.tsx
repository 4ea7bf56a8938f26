/** The overhead picture, laid under the plan. */
import type { SiteDrawing } from "../../core/types";
import { type PlanView, toScreen } from "../view";
import { scaleOf } from "../drawingPlace";

export function DrawingImage({ view, drawing }: { view: PlanView; drawing: SiteDrawing | null }) {
  if (!drawing) return null;
  const [u, v] = toScreen(view, drawing.centre ?? [0, 0]);
  const scale = scaleOf(drawing) * view.scale;
  return (
    <image
      href={`/api/pictures/${drawing.picture}`}
      width={drawing.width_px}
      height={drawing.height_px}
      opacity={1 - (drawing.fade ?? 0)}
      preserveAspectRatio="none"
      transform={`translate(${u} ${v}) rotate(${drawing.turn_deg ?? 0}) scale(${scale}) translate(${-drawing.width_px / 2} ${-drawing.height_px / 2})`}
      data-testid="drawing"
      role="img"
      aria-label="Overhead picture"
    />
  );
}
