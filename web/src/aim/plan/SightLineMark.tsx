/** The sight line in hand, with its length and what stands in it. */
import type { Shown } from "../../engine/useStudy";
import { useSettings } from "../../shell/settings";
import { cameraOf } from "../../site/edits";
import { formatLength } from "../../units/length";
import { lineResult } from "../lineResult";
import { type PlanView, toScreen } from "./planView";

export function SightLineMark({ view, shown }: { view: PlanView; shown: Shown }) {
  const units = useSettings((settings) => settings.units);
  const result = lineResult(shown);
  const camera = result && cameraOf(shown.site, result.camera);
  if (!result || !camera) return null;
  const [x0, y0] = toScreen(view, camera.position);
  const [x1, y1] = toScreen(view, result.at);
  const long = Math.hypot(x1 - x0, y1 - y0);
  const label = formatLength(result.slant_m, units, 1);
  const angle = (Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI;
  const upright = Math.abs(angle) > 90 ? angle + 180 : angle;
  const ends = shown.study?.section?.need_ends ?? [];
  return (
    <g className={`sight-line${result.clear ? "" : " sight-line-blocked"}`} aria-hidden="true">
      <line x1={x0} y1={y0} x2={x1} y2={y1} className="sight-line-ground" />
      <line x1={x0} y1={y0} x2={x1} y2={y1} className="sight-line-ray" data-testid="sight-line" />
      {ends.map((end) => {
        const share = end.ground_m / result.ground_m;
        if (share < 0.12 || share > 2.6) return null;
        return (
          <text key={end.task} x={x0 + (x1 - x0) * share} y={y0 + (y1 - y0) * share + 4} className="contour-label" textAnchor="middle">
            {Math.round(end.px_per_m)}
          </text>
        );
      })}
      {long > 46 && (
        <g transform={`translate(${(x0 + x1) / 2} ${(y0 + y1) / 2}) rotate(${upright})`}>
          <g transform="translate(0 -13)">
            <rect x={-label.length * 3.9 - 6} y={-9} width={label.length * 7.8 + 12} height={18} rx={3} className="tag" />
            <text textAnchor="middle" y={4} className="tag-text">{label}</text>
          </g>
        </g>
      )}
    </g>
  );
}
