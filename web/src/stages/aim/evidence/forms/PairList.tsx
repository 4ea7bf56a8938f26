/** The pairs that link a fixed view to a head, how far each is off, and why a pointing is not to be trusted. */
import type { Link, PointedThrough } from "../../../../core/types";
import { Button } from "../../../../ui/controls";

export function PairList({
  pairs,
  off,
  doubtful,
  onDelete,
}: {
  pairs: Link["pairs"];
  /** How far each is off, degrees; none while that is not known. */
  off: number[];
  /** The place of the one that fits worst; null where all agree. */
  doubtful: number | null;
  onDelete(number: number): void;
}) {
  return (
    <ol className="view-list" aria-label="Pairs of what both see">
      {pairs.map(({ pixel, pan_deg, tilt_deg }, number) => {
        const by = off[number];
        return (
          <li key={number}>
            <span className="figure">
              {number + 1}: {pixel.map((axis) => axis.toFixed(0)).join(", ")} px ↔ {pan_deg.toFixed(1)}°,{" "}
              {tilt_deg.toFixed(1)}° down
              {by !== undefined && `, off ${by.toFixed(2)}°`}
              {doubtful === number && " – the worst"}
            </span>
            <Button size="small" type="text" aria-label={`Delete pair ${number + 1}`} onClick={() => onDelete(number)}>
              ×
            </Button>
          </li>
        );
      })}
    </ol>
  );
}

export function Cautions({ through: { cautions } }: { through: PointedThrough }) {
  return cautions.map((says) => (
    <p key={says} className="caution">
      Not to be trusted there: {says}.
    </p>
  ));
}
