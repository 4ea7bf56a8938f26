/** Verdicts differ by shape first: disc with tick, half disc, ring with stroke, broken ring. */
import type { Point, Verdict } from "../core/types";

export function VerdictShape({
  verdict,
  size = 18,
  at: [u, v] = [0, 0],
}: {
  verdict: Verdict | null;
  size?: number;
  at?: Point;
}) {
  // Placed by its figures, not by a transform: each transform is a layer that the browser keeps account of.
  const k = size / 20;
  const to = (x: number, y: number): string => `${u + x * k} ${v + y * k}`;
  const ring = { cx: u, cy: v, r: 7.7 * k, className: "verdict-line" };
  return (
    <g className={`verdict verdict-${verdict ?? "none"}`}>
      <circle cx={u} cy={v} r={10.5 * k} className="verdict-ground" />
      {verdict === "kept" && (
        <>
          <circle cx={u} cy={v} r={8.6 * k} className="verdict-fill" />
          <path d={`M${to(-4, 0.4)}L${to(-1.1, 3.4)}L${to(4.2, -3)}`} className="verdict-cut" />
        </>
      )}
      {verdict === "tight" && (
        <>
          <circle {...ring} />
          <path d={`M${to(0, -7.7)}A${7.7 * k} ${7.7 * k} 0 0 0 ${to(0, 7.7)}Z`} className="verdict-fill" />
        </>
      )}
      {verdict === "broken" && (
        <>
          <circle {...ring} />
          <path d={`M${to(-5.2, -5.2)}L${to(5.2, 5.2)}`} className="verdict-line" />
        </>
      )}
      {(verdict === "unknown" || verdict === null) && <circle {...ring} strokeDasharray="3.2 2.8" />}
    </g>
  );
}

export function VerdictMark({ verdict, size = 18 }: { verdict: Verdict | null; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="-11 -11 22 22"
      className="verdict-mark"
      role="img"
      aria-label={verdict ?? "not known yet"}
    >
      <VerdictShape verdict={verdict} size={20} />
    </svg>
  );
}
