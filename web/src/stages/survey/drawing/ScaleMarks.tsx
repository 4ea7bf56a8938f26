/** The distances that set a drawing's scale: typed or measured, with what they are off by. */
import { Button } from "antd";
import { useState } from "react";
import type { Point, SiteDrawing, Survey } from "../../../core/types";
import { measure } from "../../../device/rangefinder";
import { useSettings } from "../../../keep/settings";
import { rounded } from "../../../model/points";
import { toGround } from "../../../plan/drawingPlace";
import { type PlanView, toScreen } from "../../../plan/view";
import { Measure, length } from "../../../ui/Measure";
import { formatLength } from "../../../ui/length";
import { changeMarks } from "./scale";

type Fit = NonNullable<Survey["scale"]>;

export function ScaleMarks({
  drawing,
  scale,
  marking,
  mark,
}: {
  drawing: SiteDrawing;
  scale: Fit | null;
  marking: boolean;
  mark(): void;
}) {
  const units = useSettings((settings) => settings.units);
  const marks = drawing.scale_from ?? [];
  const change = (says: string, recipe: (drawing: SiteDrawing) => void, gesture = ""): void =>
    void changeMarks(says, recipe, gesture);
  return (
    <div className="field" data-field="metres_per_px">
      <span className="field-label">Scale</span>
      <p className="figure" data-testid="drawing-scale">
        {drawing.metres_per_px ? `${(drawing.metres_per_px * 100).toFixed(2)} cm per pixel` : "not set yet"}
      </p>
      <ol className="scale-marks" data-field="scale_from">
        {marks.map((given, place) => (
          <li key={place} className={scale?.odd_one === place ? "scale-odd" : ""}>
            <Measure
              of={`scale-${place}`}
              label={`Distance ${place + 1}`}
              value={given.distance_m}
              quantity={length(units)}
              min={0.05}
              max={10000}
              onChange={(v, g) =>
                change(
                  "Correct a distance of the drawing",
                  (d) => {
                    const m = d.scale_from?.[place];
                    if (m) m.distance_m = v;
                  },
                  g ? `mark-${place}` : "",
                )
              }
            />
            <MeasureIt
              onShot={(metres) =>
                change("Measure a distance of the drawing", (d) => {
                  const m = d.scale_from?.[place];
                  if (m) m.distance_m = metres;
                })
              }
              drawing={drawing}
              place={place}
            />
            <span className="figure fine">
              {scale && marks.length > 1 ? `off by ${formatLength(scale.residuals_m[place] ?? 0, units)}` : ""}
            </span>
            <Button
              type="text"
              aria-label={`Remove distance ${place + 1}`}
              onClick={() =>
                change("Remove a distance of the drawing", (d) => {
                  d.scale_from = (d.scale_from ?? []).filter((_, i) => i !== place);
                })
              }
            >
              Remove
            </Button>
            {scale?.odd_one === place && <span className="verdict-word-broken">does not go with the others</span>}
          </li>
        ))}
      </ol>
      <Button size="large" onClick={mark} disabled={marking}>
        {marks.length === 0 ? "Mark a distance" : "Mark another distance"}
      </Button>
    </div>
  );
}

/** Shoots the distance with the rangefinder. */
function MeasureIt({ drawing, place, onShot }: { drawing: SiteDrawing; place: number; onShot(metres: number): void }) {
  const [state, setState] = useState<{ busy: boolean; fault: string }>({ busy: false, fault: "" });
  const mark = drawing.scale_from?.[place];
  if (!mark) return null;
  const shoot = async (): Promise<void> => {
    setState({ busy: true, fault: "" });
    try {
      // The stand-in is told where the hand holds it: on the drawing, level.
      const at = (pixel: Point): [number, number, number] => [...toGround(drawing, pixel), 1.5];
      const { shot, level_m } = await measure({ from: at(mark.a as Point), to: at(mark.b as Point) });
      onShot(rounded(level_m ?? shot.slope_m, 3));
      setState({ busy: false, fault: "" });
    } catch (error) {
      setState({ busy: false, fault: (error as Error).message });
    }
  };
  return (
    <>
      <Button loading={state.busy} onClick={() => void shoot()} aria-label={`Measure distance ${place + 1}`}>
        Measure
      </Button>
      {state.fault && (
        <span className="fine" role="alert">
          {state.fault}
        </span>
      )}
    </>
  );
}

export function ScaleMarksOnPlan({
  view,
  drawing,
  first,
  odd,
}: {
  view: PlanView;
  drawing: SiteDrawing;
  first: Point | null;
  odd: number | null;
}) {
  const units = useSettings((settings) => settings.units);
  const on = (pixel: readonly number[]): Point => toScreen(view, toGround(drawing, pixel));
  return (
    <g className="scale-lines" aria-hidden="true">
      {(drawing.scale_from ?? []).map((mark, place) => {
        const [[u0, v0], [u1, v1]] = [on(mark.a), on(mark.b)];
        return (
          <g key={place} className={odd === place ? "scale-odd" : ""}>
            <line x1={u0} y1={v0} x2={u1} y2={v1} />
            <text
              x={(u0 + u1) / 2}
              y={(v0 + v1) / 2 - 6}
              textAnchor="middle"
            >{`${place + 1}: ${formatLength(mark.distance_m, units)}`}</text>
          </g>
        );
      })}
      {first && <circle cx={on(first)[0]} cy={on(first)[1]} r={6} />}
    </g>
  );
}
