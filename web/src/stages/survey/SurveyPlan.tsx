/** The plan as the walk needs it: the drawing, the solids, spots and targets to be moved, and a tap to put something down. */
import { type ReactNode, useCallback } from "react";
import type { Point, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Sheet } from "../../plan/Sheet";
import { Solids } from "../../plan/layers/Solids";
import type { PlanView } from "../../plan/view";

interface Props {
  site: SiteFile;
  /** Says what a tap does; without it a tap does nothing. */
  tapping?: string | null;
  onTap?(at: Point): void;
  children?: (view: PlanView) => ReactNode;
}

export function SurveyPlan({ site, tapping, onTap, children }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const units = useSettings((settings) => settings.units);
  const { obstacles } = site;
  const solids = useCallback(
    (view: PlanView) => <Solids view={view} obstacles={obstacles} units={units} />,
    [obstacles, units],
  );
  return (
    <Sheet
      site={site}
      id={id}
      units={units}
      className="survey-plan"
      label={tapping ? `Plan. ${tapping}` : "Plan"}
      onTap={tapping ? onTap : undefined}
      layers={[{ still: true, draw: solids }, { draw: (view) => children?.(view) }]}
    >
      {tapping && (
        <div className="plan-banner" role="status">
          {tapping}
        </div>
      )}
    </Sheet>
  );
}
