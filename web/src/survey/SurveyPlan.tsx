/** The plan as the walk needs it: the drawing, the solids, spots and targets to be moved, and a tap to put something down. */
import { Button } from "antd";
import type { ReactNode } from "react";
import type { Point, SiteFile } from "../engine/types";
import { Furniture, Grid } from "../plan/Furniture";
import { Obstacles } from "../plan/Obstacles";
import { fitting, toScreen, toSite, usePlanView, zoomed, type PlanView } from "../plan/planView";
import { usePlanGestures } from "../plan/usePlanGestures";
import { DrawingImage } from "../plan/DrawingImage";

interface Props {
  site: SiteFile;
  /** Says what a tap does; without it a tap does nothing. */
  tapping?: string | null;
  onTap?(at: Point): void;
  children?: (view: PlanView) => ReactNode;
  solids?: boolean;
}

export function SurveyPlan({ site, tapping, onTap, children, solids = true }: Props) {
  const view = usePlanView();
  const svg = usePlanGestures(site);
  const tap = (at: Point): void => onTap?.(toSite(usePlanView.getState(), at));
  return (
    <div className="plan survey-plan">
      <svg
        ref={svg} className={tapping ? "plan-sheet plan-placing" : "plan-sheet"} role="group" tabIndex={0} aria-label={tapping ? `Plan. ${tapping}` : "Plan"}
        onClick={(event) => tapping && tap([event.nativeEvent.offsetX, event.nativeEvent.offsetY])}
        onKeyDown={(event) => tapping && event.key === "Enter" && tap([view.size[0] / 2, view.size[1] / 2])}
      >
        {view.size[0] > 0 && (
          <>
            <DrawingImage view={view} site={site} />
            <Grid view={view} />
            {solids && <Obstacles view={view} site={site} />}
            {children?.(view)}
            <Furniture view={view} />
          </>
        )}
      </svg>
      <div className="plan-tools">
        <Button size="small" aria-label="Zoom in" onClick={() => view.set(zoomed(view, 1.4, toScreen(view, view.centre)))}>+</Button>
        <Button size="small" aria-label="Zoom out" onClick={() => view.set(zoomed(view, 1 / 1.4, toScreen(view, view.centre)))}>−</Button>
        <Button size="small" onClick={() => view.set(fitting(site, view.size))}>All</Button>
      </div>
      {tapping && <div className="plan-banner" role="status">{tapping}</div>}
    </div>
  );
}
