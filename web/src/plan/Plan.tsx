/** The plan: relief of density, solids, targets and cameras, all of them to be taken by hand. */
import { Button } from "antd";
import type { Shown } from "../engine/useStudy";
import { DrawingImage } from "./DrawingImage";
import { CameraMark } from "./CameraMark";
import { Furniture, Grid } from "./Furniture";
import { ObstacleCard } from "./ObstacleCard";
import { ObstacleCorners, Obstacles } from "./Obstacles";
import { Relief, ReliefLegend } from "./Relief";
import { SightLineMark } from "./SightLineMark";
import { SpotShape } from "./SpotShape";
import { TargetMark } from "./TargetMark";
import { fitting, toScreen, usePlanView, zoomed } from "./planView";
import { usePlacing } from "./usePlacing";
import { usePlanGestures } from "./usePlanGestures";
import { useInHand } from "../aim/inHand";

export function Plan({ shown }: { shown: Shown }) {
  const view = usePlanView();
  const { target, head, placing, place } = useInHand();
  const svg = usePlanGestures(shown.site);
  const placeAt = usePlacing();
  const results = new Map(shown.study?.evaluation.targets.map((result) => [result.target, result]));
  const footprint = shown.study?.footprints.find((f) => f.camera === head?.camera && f.head === head.head);
  const empty = shown.site.targets.length + shown.site.cameras.length === 0;
  return (
    <div className="plan">
      <svg
        ref={svg} className={placing ? "plan-sheet plan-placing" : "plan-sheet"} role="group" tabIndex={0}
        aria-label={placing ? `Plan. Click or press Enter to place the ${placing}` : "Plan"}
        onClick={(event) => placing && placeAt([event.nativeEvent.offsetX, event.nativeEvent.offsetY])}
        onKeyDown={(event) => placing && event.key === "Enter" && placeAt([view.size[0] / 2, view.size[1] / 2])}
      >
        {view.size[0] > 0 && (
          <>
            <DrawingImage view={view} site={shown.site} />
            <Grid view={view} />
            <Relief view={view} footprints={shown.study?.footprints ?? []} inHand={footprint} over={shown.site.drawing != null} />
            <Obstacles view={view} site={shown.site} />
            <g className="spots-known" aria-hidden="true">
              {(shown.site.spots ?? []).map((spot, number) => <SpotShape key={spot.id} at={toScreen(view, spot.position)} place={number} />)}
            </g>
            <SightLineMark view={view} shown={shown} />
            {shown.site.cameras.map((camera) => (
              <CameraMark key={camera.id} view={view} camera={camera} inHand={head?.camera === camera.id ? head.head : null} />
            ))}
            {shown.site.targets.map((t) => (
              <TargetMark key={t.id} view={view} target={t} verdict={results.get(t.id)?.verdict ?? null} inHand={t.id === target} />
            ))}
            <ObstacleCorners view={view} site={shown.site} />
            <Furniture view={view} />
          </>
        )}
      </svg>
      <ReliefLegend footprints={shown.study?.footprints ?? []} needs={shown.site.rules?.needs ?? "2014"} />
      <div className="plan-tools">
        <Button size="small" aria-label="Zoom in" onClick={() => view.set(zoomed(view, 1.4, toScreen(view, view.centre)))}>+</Button>
        <Button size="small" aria-label="Zoom out" onClick={() => view.set(zoomed(view, 1 / 1.4, toScreen(view, view.centre)))}>−</Button>
        <Button size="small" onClick={() => view.set(fitting(shown.site, view.size))}>All</Button>
      </div>
      <ObstacleCard site={shown.site} />
      {placing && (
        <div className="plan-banner" role="status">
          Click where the {placing} {placing === "camera" ? "sits" : placing === "obstacle" ? "stands" : "is"}. Enter takes the middle.
          <Button size="small" onClick={() => place(null)}>Leave it</Button>
        </div>
      )}
      {empty && !placing && (
        <div className="plan-empty">
          <p>An empty sheet. Begin with what must be seen.</p>
          <Button type="primary" onClick={() => place("target")}>Place the first target</Button>
        </div>
      )}
    </div>
  );
}
