/**
 * How each kind of thing looks on the Aim stage: its marks on the plan, and its card when it is in hand. One entry a kind, in the order
 * in which they are drawn; a new one is seen and taken by being entered here.
 */
import { type ComponentType, memo, useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import type { HeadRef, Sights, SiteFile, Units, Verdict } from "../../core/types";
import { type InHand, useInHand } from "../../model/inHand";
import { type KindName, type ThingOf, thingOf } from "../../model/kinds";
import { CameraMark } from "../../plan/layers/CameraMark";
import { Lamps } from "../../plan/layers/Lamps";
import { PrivatePlaces } from "../../plan/layers/PrivatePlaces";
import { SolidCorners, Solids } from "../../plan/layers/Solids";
import { SpotShape } from "../../plan/layers/SpotShape";
import { TargetMark } from "../../plan/layers/TargetMark";
import { type PlanView, toScreen } from "../../plan/view";
import { ObstacleCard } from "./ObstacleCard";
import { LampCard } from "./night/LampCard";
import { planActions } from "./planActions";
import { PrivateCard } from "./private/PrivateCard";
import { useVerdicts } from "./verdicts";

interface MarksProps {
  view: PlanView;
  site: SiteFile;
  sights: Sights | null;
  units: Units;
  which: Which;
}

/** Which of a kind are drawn. */
interface Which {
  /** The id of the one in hand. */
  held: string | null;
  /** That one only, or all but it. */
  only: boolean;
}

interface Entry<Name extends KindName> {
  kind: Name;
  /** Under what is drawn of light, ground and sight lines, or over it. */
  over?: boolean;
  Marks: ComponentType<MarksProps>;
  /** What else is drawn of the one in hand, over all. */
  Held?: ComponentType<{ view: PlanView; thing: ThingOf<Name> }>;
  Card?: ComponentType<{ site: SiteFile; thing: ThingOf<Name> }>;
}
interface Known extends Pick<Entry<KindName>, "kind" | "over" | "Marks"> {
  Held: ComponentType<{ view: PlanView; site: SiteFile; id: string }> | null;
  Card: ComponentType<{ site: SiteFile; id: string }> | null;
}

/** An entry as everybody reads it: the thing is found by its id. */
function entry<Name extends KindName>({ Held, Card, ...of }: Entry<Name>): Known {
  return {
    ...of,
    Held:
      Held === undefined
        ? null
        : function HeldOf({ view, site, id }) {
            const thing = thingOf(site, of.kind, id);
            return thing ? <Held view={view} thing={thing} /> : null;
          },
    Card:
      Card === undefined
        ? null
        : function CardOf({ site, id }) {
            const thing = thingOf(site, of.kind, id);
            return thing ? <Card site={site} thing={thing} /> : null;
          },
  };
}

const THINGS = [
  entry({
    kind: "obstacle",
    Marks: ({ view, site, units, which }) => (
      <Solids
        view={view}
        obstacles={useThose(site.obstacles, which)}
        units={units}
        inHand={which.held}
        actions={planActions.solids}
      />
    ),
    Held: ({ view, thing }) => <SolidCorners view={view} obstacle={thing} actions={planActions.corners.obstacle} />,
    Card: ObstacleCard,
  }),
  entry({
    kind: "private",
    Marks: ({ view, site, which }) => (
      <PrivatePlaces
        view={view}
        places={useThose(site.private, which)}
        inHand={which.held}
        actions={planActions.privatePlaces}
      />
    ),
    Held: ({ view, thing }) => <SolidCorners view={view} obstacle={thing} actions={planActions.corners.private} />,
    Card: PrivateCard,
  }),
  entry({
    kind: "spot",
    // To look at: they are taken on the walk, and none is in hand here.
    Marks: ({ view, site, which }) => (
      <g className="spots-known" aria-hidden="true">
        {useThose(site.spots, which).map((spot, number) => (
          <SpotShape key={spot.id} at={toScreen(view, spot.position)} place={number} />
        ))}
      </g>
    ),
  }),
  entry({
    kind: "lamp",
    Marks: ({ view, site, which }) => (
      <Lamps
        view={view}
        lamps={useThose(site.lamps, which)}
        cameras={which.only ? NONE : site.cameras}
        inHand={which.held}
        actions={planActions.lamps}
      />
    ),
    Card: LampCard,
  }),
  entry({
    kind: "camera",
    over: true,
    Marks: function Marks({ view, site, which }) {
      const head = useInHand((state) => state.head);
      return <Cameras view={view} cameras={useThose(site.cameras, which)} head={head} />;
    },
  }),
  entry({
    kind: "target",
    over: true,
    Marks: function Marks({ view, site, sights, which }) {
      const verdicts = useVerdicts(sights?.summary.targets ?? NONE);
      return <Targets view={view} targets={useThose(site.targets, which)} verdicts={verdicts} inHand={which.held} />;
    },
  }),
];

const NONE: never[] = [];

/** The things of a list that are drawn: the one in hand only, or all but it. */
function useThose<Thing extends { id: string }>(list: Thing[] | undefined, { held, only }: Which): Thing[] {
  return useMemo(() => (list ?? NONE).filter(({ id }) => (id === held) === only), [list, held, only]);
}

/** The id of what is in hand of a kind. */
const heldOf = (kind: KindName, { thing, target, head }: Pick<InHand, "thing" | "target" | "head">): string | null =>
  kind === "target" ? target : kind === "camera" ? (head?.camera ?? null) : thing?.kind === kind ? thing.id : null;

/**
 * The marks of the kinds that are drawn under what is told of them, or over it: all but what is in hand, which follows the hand in a
 * layer of its own, or that only.
 */
export function Marks({ over, only, ...of }: { over?: boolean; only: boolean } & Omit<MarksProps, "which">) {
  const inHand = useInHand(useShallow(({ thing, target, head }) => ({ thing, target, head })));
  const drawn = THINGS.filter((one) => over === undefined || (one.over ?? false) === over);
  return drawn.map(({ kind, Marks: Of }) => <Of key={kind} {...of} which={{ held: heldOf(kind, inHand), only }} />);
}

/** What is drawn of the thing in hand over all. */
export function HeldMark({ view, site }: { view: PlanView; site: SiteFile }) {
  const held = useInHand((state) => state.thing);
  const known = THINGS.find(({ kind }) => kind === held?.kind);
  return held && known?.Held ? <known.Held view={view} site={site} id={held.id} /> : null;
}

/** The card of the thing in hand. */
export function HeldCard({ site }: { site: SiteFile }) {
  const held = useInHand((state) => state.thing);
  const known = THINGS.find(({ kind }) => kind === held?.kind);
  return held && known?.Card ? <known.Card key={`${held.kind}/${held.id}`} site={site} id={held.id} /> : null;
}

interface CamerasProps {
  view: PlanView;
  cameras: SiteFile["cameras"];
  head: HeadRef | null;
}

const Cameras = memo(function Cameras({ view, cameras, head }: CamerasProps) {
  return cameras.map((camera) => (
    <CameraMark
      key={camera.id}
      view={view}
      camera={camera}
      inHand={head?.camera === camera.id ? head : null}
      actions={planActions.cameras}
    />
  ));
});

interface TargetsProps {
  view: PlanView;
  targets: SiteFile["targets"];
  verdicts: ReadonlyMap<string, Verdict>;
  inHand: string | null;
}

const Targets = memo(function Targets({ view, targets, verdicts, inHand }: TargetsProps) {
  return targets.map((target) => (
    <TargetMark
      key={target.id}
      view={view}
      target={target}
      verdict={verdicts.get(target.id) ?? null}
      inHand={target.id === inHand}
      actions={planActions.targets}
    />
  ));
});
