/** The subject of the section at its height. */
import type { Section, Subject as Kind, Verdict } from "../../../core/types";
import { VerdictShape } from "../../../ui/VerdictMark";
import type { Cut } from "./cut";

/** A person's height where the eyes are at 1.6 m. */
const PERSON_M = 1.72;

export function Subject({
  cut,
  section,
  subject,
  verdict,
}: {
  cut: Cut;
  section: Section;
  subject: Kind;
  verdict: Verdict | null;
}) {
  const along = section.ground_m;
  const [u, v] = cut.at(along, section.target_height_m);
  const [, ground] = cut.at(along, 0);
  const tall = subject === "face" ? (section.target_height_m / 1.6) * PERSON_M : PERSON_M;
  const [, head] = cut.at(along, tall);
  const unit = (ground - head) / PERSON_M;
  return (
    <g className="subject">
      {(subject === "face" || subject === "person") && (
        <g>
          <circle cx={u} cy={head + unit * 0.12} r={Math.max(unit * 0.115, 2)} className="figure-ink" />
          <path d={body(u, ground, head, unit)} className="figure-ink" />
        </g>
      )}
      {(subject === "vehicle" || subject === "plate") && <path d={vehicle(cut, along)} className="figure-line" />}
      {subject === "plate" && <line x1={u} x2={u} y1={v - 4} y2={v + 4} className="figure-plate" />}
      {subject === "scene" && <line x1={u} x2={u} y1={ground} y2={v} className="figure-line" />}
      <g transform={`translate(${u + 15} ${v - 9})`}>
        <VerdictShape verdict={verdict} size={16} />
      </g>
    </g>
  );
}

/** A car's outline behind its plate. */
function vehicle(cut: Cut, along: number): string {
  const outline: [number, number][] = [
    [0, 0.3],
    [0, 0.8],
    [1.1, 0.95],
    [1.7, 1.45],
    [3.2, 1.45],
    [4.2, 0.9],
    [4.2, 0.3],
  ];
  return `M${outline.map(([x, y]) => cut.at(along + x, y).join(" ")).join("L")}Z`;
}

/** A standing person from the shoulders down. */
function body(u: number, ground: number, head: number, unit: number): string {
  const shoulder = head + unit * 0.3;
  const hip = head + unit * 0.85;
  return `M${u - unit * 0.2} ${shoulder}Q${u} ${shoulder - unit * 0.08} ${u + unit * 0.2} ${shoulder}L${u + unit * 0.15} ${hip}L${u + unit * 0.12} ${ground}H${u + unit * 0.02}L${u} ${hip}L${u - unit * 0.02} ${ground}H${u - unit * 0.12}L${u - unit * 0.15} ${hip}Z`;
}
