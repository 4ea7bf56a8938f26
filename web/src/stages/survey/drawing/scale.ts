/** The scale of a drawing: set together with the distances that it comes from, by the hand that changes them. */
import { ask } from "../../../core/port";
import type { SiteDrawing } from "../../../core/types";
import { useSite } from "../../../keep/store";

let changes = 0;

/** Changes the distances of the drawing, and sets the scale that they make together; one step to undo. */
export async function changeMarks(says: string, recipe: (drawing: SiteDrawing) => void, gesture = ""): Promise<void> {
  const { edit } = useSite.getState();
  const step = gesture || `scale-marks-${(changes += 1)}`;
  edit(
    says,
    (draft) => {
      if (draft.drawing) recipe(draft.drawing);
    },
    step,
  );
  const site = useSite.getState().open?.site;
  const marks = site?.drawing?.scale_from;
  if (!site || !marks || marks.length === 0) return;
  const { scale } = await ask(site, { ask: "survey" });
  // Distances that were changed meanwhile set their own.
  if (!scale || useSite.getState().open?.site.drawing?.scale_from !== marks) return;
  edit(
    says,
    (draft) => {
      if (draft.drawing) draft.drawing.metres_per_px = scale.metres_per_px;
    },
    step,
  );
}
