/** The ground of the section: distances, where each need ends, and what is not seen under the camera. */
import type { Section } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { formatLength, roundLabel, roundLength } from "../../../ui/length";
import type { Cut } from "./cut";

export function Ground({ cut, section }: { cut: Cut; section: Section }) {
  const units = useSettings((settings) => settings.units);
  const step = roundLength((section.to_m - section.from_m) / 5, units);
  const ticks = Array.from({ length: Math.floor(section.to_m / step) + 1 }, (_, i) => i * step);
  const [, ground] = cut.at(0, 0);
  const unseen = section.edges?.unseen_ground_to_m ?? null;
  const near = unseen === null ? null : Math.min(unseen, section.to_m);
  return (
    <g className="section-ground">
      <rect x={0} y={ground} width={cut.right} height={cut.bottom - ground} className="soil" />
      <line x1={0} x2={cut.right} y1={ground} y2={ground} className="soil-line" />
      {ticks.map((along) => (
        <text key={along} x={cut.at(along, 0)[0]} y={ground + 27} textAnchor="middle" className="section-tick">
          {along === 0 ? "0" : roundLabel(along, units)}
        </text>
      ))}
      {near !== null && near > 0.05 && unseen !== null && (
        <g className="unseen">
          <rect x={cut.at(0, 0)[0]} y={ground} width={cut.at(near, 0)[0] - cut.at(0, 0)[0]} height={5} />
          <text x={cut.at(0, 0)[0] + 4} y={ground - 5}>
            ground unseen to {formatLength(unseen, units, 1)}
          </text>
        </g>
      )}
      {section.need_ends
        .filter((end) => end.ground_m < section.to_m)
        .map((end) => {
          const [u] = cut.at(end.ground_m, 0);
          return (
            <g
              key={end.task}
              className="need-end"
              role="img"
              aria-label={`${end.px_per_m} px/m ends at ${formatLength(end.ground_m, units, 1)}`}
            >
              <title>{`${end.task}: ends at ${formatLength(end.ground_m, units, 1)}`}</title>
              <line x1={u} x2={u} y1={ground - 4} y2={ground + 9} />
              <text x={u + 3} y={ground + 14}>
                {Math.round(end.px_per_m)}
              </text>
            </g>
          );
        })}
    </g>
  );
}
