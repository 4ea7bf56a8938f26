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
  return (
    <g className={`verdict verdict-${verdict ?? "none"}`} transform={`translate(${u} ${v}) scale(${size / 20})`}>
      <circle r="10.5" className="verdict-ground" />
      {verdict === "kept" && (
        <>
          <circle r="8.6" className="verdict-fill" />
          <path d="M-4 0.4L-1.1 3.4L4.2 -3" className="verdict-cut" />
        </>
      )}
      {verdict === "tight" && (
        <>
          <circle r="7.7" className="verdict-line" />
          <path d="M0 -7.7A7.7 7.7 0 0 0 0 7.7Z" className="verdict-fill" />
        </>
      )}
      {verdict === "broken" && (
        <>
          <circle r="7.7" className="verdict-line" />
          <path d="M-5.2 -5.2L5.2 5.2" className="verdict-line" />
        </>
      )}
      {(verdict === "unknown" || verdict === null) && (
        <circle r="7.7" className="verdict-line" strokeDasharray="3.2 2.8" />
      )}
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
