/**
 * How each kind of thing looks on the Aim stage: its marks on the plan, and its card when it is in hand. One entry a kind, in the order
 * in which they are drawn; a new one is seen and taken by being entered here.
 */
import { type ComponentType, memo } from "react";
import type { Shown } from "../../core/useSights";
import type { HeadRef, SiteFile, Units, Verdict } from "../../core/types";
import { useInHand } from "../../model/inHand";
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
  shown: Shown;
  units: Units;
  /** The id of the one in hand. */
  inHand: string | null;
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
    Marks: ({ view, shown, units, inHand }) => (
      <Solids view={view} obstacles={shown.site.obstacles} units={units} inHand={inHand} actions={planActions.solids} />
    ),
    Held: ({ view, thing }) => <SolidCorners view={view} obstacle={thing} actions={planActions.corners.obstacle} />,
    Card: ObstacleCard,
  }),
  entry({
    kind: "private",
    Marks: ({ view, shown, inHand }) => (
      <PrivatePlaces view={view} places={shown.site.private} inHand={inHand} actions={planActions.privatePlaces} />
    ),
    Held: ({ view, thing }) => <SolidCorners view={view} obstacle={thing} actions={planActions.corners.private} />,
    Card: PrivateCard,
  }),
  entry({
    kind: "spot",
    // To look at: they are taken on the walk.
    Marks: ({ view, shown }) => (
      <g className="spots-known" aria-hidden="true">
        {shown.site.spots?.map((spot, number) => (
          <SpotShape key={spot.id} at={toScreen(view, spot.position)} place={number} />
        ))}
      </g>
    ),
  }),
  entry({
    kind: "lamp",
    Marks: ({ view, shown: { site }, inHand }) => (
      <Lamps view={view} lamps={site.lamps} cameras={site.cameras} inHand={inHand} actions={planActions.lamps} />
    ),
    Card: LampCard,
  }),
  entry({
    kind: "camera",
    over: true,
    Marks: function Marks({ view, shown }) {
      const head = useInHand((state) => state.head);
      return <Cameras view={view} cameras={shown.site.cameras} head={head} />;
    },
  }),
  entry({
    kind: "target",
    over: true,
    Marks: function Marks({ view, shown }) {
      const target = useInHand((state) => state.target);
      const verdicts = useVerdicts(shown.sights?.summary.targets ?? []);
      return <Targets view={view} targets={shown.site.targets} verdicts={verdicts} inHand={target} />;
    },
  }),
];

/** The marks of the kinds that are drawn under what is told of them, or over it. */
export function Marks({ over, view, shown, units }: { over: boolean } & Omit<MarksProps, "inHand">) {
  const thing = useInHand((state) => state.thing);
  const drawn = THINGS.filter((one) => (one.over ?? false) === over);
  return drawn.map(({ kind, Marks: Of }) => (
    <Of key={kind} view={view} shown={shown} units={units} inHand={thing?.kind === kind ? thing.id : null} />
  ));
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
