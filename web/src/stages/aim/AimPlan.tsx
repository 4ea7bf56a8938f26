/** The plan of the Aim screen: relief of density, solids, targets and cameras, all of them to be taken by hand. */
import { Suspense, lazy, memo, useCallback } from "react";
import type { GroundShown } from "../../core/useGround";
import { useRelief } from "../../core/useRelief";
import { GUIDE } from "../../core/guide";
import type { Shown } from "../../core/useSights";
import type { Point, SiteFile, Target, Units } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { cameraOf, middle, targetOf } from "../../model/lookups";
import { Sheet } from "../../plan/Sheet";
import { LaneZone } from "../../plan/layers/LaneZone";
import { SunBearings } from "../../plan/layers/SunBearings";
import { PictureOutline, Relief } from "../../plan/layers/Relief";
import { SightLineMark } from "../../plan/layers/SightLineMark";
import { usePlanView } from "../../plan/planView";
import type { PlanView } from "../../plan/view";
import { formatLength, unitOf } from "../../ui/length";
import { density, unitWord } from "../../ui/words";
import { FirstSteps } from "./FirstSteps";
import { ChosenCard } from "./draw/ChosenCard";
import { DrawCard } from "./draw/DrawCard";
import { Chosen, DrawLayer } from "./draw/DrawLayer";
import { snapped } from "./draw/drawing";
import { useBringIn, useDraw } from "./draw/drawView";
import { GroundLayers } from "./ground/GroundLayers";
import { WhyCard } from "./ground/WhyCard";
import { useGroundView } from "./ground/groundView";
import { useLower } from "./lowerView";
import { useSunView } from "./sun/sunView";
import { SweepReach } from "./SweepReach";
import { HeldCard, HeldMark, Marks } from "./things";
import { useNeeds } from "./verdicts";
import { usePlacing } from "./usePlacing";
import { Button, RadioGroup } from "../../ui/controls";

const BringIn = lazy(() => import("./draw/BringIn").then((module) => ({ default: module.BringIn })));

export function AimPlan({ shown, ground }: { shown: Shown; ground: GroundShown | null }) {
  const { site, sights } = shown;
  const { units, dark } = useSettings();
  const id = useSite((state) => state.open?.id) ?? "";
  const { head, thing, placing, place } = useInHand();
  const placeAt = usePlacing();
  const { height, counting, asked } = useGroundView();
  const needs = useNeeds(sights?.summary.targets ?? []);
  const bringing = useBringIn((state) => state.open);
  const hover = (at: Point): void => {
    useDraw.getState().set({ hand: placing === "draw" ? snapped(site, at) : { at, to: null } });
  };
  const { obstacles, lamps, spots, cameras, targets } = site;
  const places = site.private;
  // Drawn anew when one of their own things changes, not when any does.
  const under = useCallback(
    (v: PlanView) => <Marks over={false} only={false} view={v} site={site} sights={null} units={units} />,
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [obstacles, lamps, spots, places, cameras, units],
  );
  const over = useCallback(
    (v: PlanView) => <Marks over only={false} view={v} site={site} sights={sights} units={units} />,
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [cameras, targets, sights, units],
  );
  return (
    <Sheet
      site={site}
      id={id}
      units={units}
      label={placing ? `Plan. Click or press Enter: ${TAPS[placing]}` : "Plan"}
      onTap={placing ? placeAt : undefined}
      onHover={placing === "draw" || placing === "box" ? hover : undefined}
      ground={<SiteRelief site={site} height={height} needs={needs} dark={dark} />}
      layers={[
        { still: true, draw: under },
        {
          draw: (v) => (
            <>
              <SunInPlan view={v} site={site} />
              {ground && (
                <GroundLayers view={v} site={site} ground={ground} counting={counting} asked={asked} units={units} />
              )}
              {sights && head && <PictureOutline view={v} lines={sights.outline} />}
              <SweepReach view={v} site={site} inHand={head} units={units} />
              {sights?.line?.zone && <LaneZone view={v} zone={sights.line.zone} units={units} />}
              <LineInHand view={v} shown={shown} units={units} />
            </>
          ),
        },
        { still: true, draw: over },
        {
          draw: (v) => (
            <>
              <Marks only view={v} site={site} sights={sights} units={units} />
              <HeldMark view={v} site={site} />
              <Chosen view={v} site={site} />
              {(placing === "draw" || placing === "box") && (
                <DrawLayer view={v} units={units} box={placing === "box"} />
              )}
            </>
          ),
        },
      ]}
    >
      <ReliefKey height={height} onHeight={turnRelief} units={units} needs={needs} />
      <HeldCard site={site} />
      {ground && <WhyCard site={site} units={units} />}
      {bringing && (
        <Suspense fallback={null}>
          <BringIn units={units} />
        </Suspense>
      )}
      {placing === "draw" && <DrawCard units={units} />}
      {!placing && !thing && <ChosenCard site={site} units={units} />}
      {placing && placing !== "draw" && !(placing === "why" && asked) && (
        <div className="plan-banner" role="status">
          Click: {TAPS[placing]}. Enter takes the middle.
          <Button size="small" onClick={() => place(null)}>
            Leave it
          </Button>
        </div>
      )}
      <FirstSteps site={site} id={id} />
    </Sheet>
  );
}

/** What the next tap on the plan does. */
const TAPS = {
  target: "where the target is",
  camera: "where the camera goes",
  lamp: "where the lamp hangs",
  obstacle: "where the obstacle stands",
  why: "why is this place seen, or not",
  goal: "where the least-seen route leads",
  draw: "the next corner",
  box: "one corner of a box, then the other",
};

const turnRelief = (height: number): void => useGroundView.getState().set({ height });

/** The bearings of the sun on its worst days, while the calendar is looked at. */
function SunInPlan({ view, site }: { view: PlanView; site: SiteFile }) {
  const told = useSunView((state) => state.told);
  const looking = useLower((state) => state.tool === "sun");
  const camera = told && cameraOf(site, told.head.camera);
  if (!looking || !told || !camera) return null;
  return <SunBearings view={view} from={camera.position as Point} worst={told.calendar.worst} />;
}

/** The sight line in hand, between where its ends are now. */
function LineInHand({ view, shown, units }: { view: PlanView; shown: Shown; units: Units }) {
  const { site, sights, of } = shown;
  const line = sights?.line;
  const camera = line && cameraOf(site, line.camera);
  const target = line && targetOf(site, line.target);
  if (!line || !camera || !target) return null;
  const same = of !== null && targetOf(of, target.id) === target;
  return (
    <SightLineMark
      view={view}
      from={camera.position as Point}
      to={endOf(target, line.at as Point, same)}
      line={line}
      needEnds={sights.section?.need_ends ?? []}
      units={units}
    />
  );
}

/** Where a line to a target ends: at the sample that decides, if that is of the target as it is now. */
const endOf = (target: Target, at: Point, same: boolean): Point => (same ? at : middle(target));

/** The relief of the site, by itself: it comes when it comes, and nothing else is drawn anew for it. */
export function SiteRelief({
  site,
  height,
  needs,
  dark,
  sheet = 0,
}: {
  site: SiteFile;
  height: number;
  needs: number[];
  dark: boolean;
  sheet?: 0 | 1;
}) {
  const view = usePlanView();
  const units = useSettings((settings) => settings.units);
  const relief = useRelief(site, view, height, sheet);
  return (
    <Relief
      view={view}
      raster={relief?.raster ?? null}
      needs={needs}
      over={site.drawing != null}
      dark={dark}
      units={units}
      settled={relief?.of === site}
    />
  );
}

/** How to read the relief, and at which height it is. */
const ReliefKey = memo(function ReliefKey({
  height,
  onHeight,
  units,
  needs,
}: {
  height: number;
  onHeight(height: number): void;
  units: Units;
  needs: number[];
}) {
  return (
    <div className="relief-key">
      <span>
        px/{unitWord(units)}, best camera
        {needs.length > 0 && ` · lines at ${needs.map((need) => density(need * unitOf(units))).join(", ")}`}
      </span>
      <RadioGroup
        size="small"
        optionType="button"
        aria-label="Height of the coverage map"
        value={height}
        onChange={(event) => onHeight(event.target.value as number)}
        options={GUIDE.heights_m.map((value) => ({
          value,
          label: value === 0 ? "ground" : formatLength(value, units, 1),
        }))}
      />
    </div>
  );
});
