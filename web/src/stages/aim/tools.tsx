/** The tools under the plan, one entry each: how it is called, when it applies, its key, what comes and goes with it, its panel. */
import { type ComponentType, lazy } from "react";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import type { SiteFile, Units } from "../../core/types";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { targetOf } from "../../model/lookups";
import { DesignsPanel } from "./designs/DesignsPanel";
import { GroundPanel } from "./ground/GroundPanel";
import { LanePanel } from "./lane/LanePanel";
import { useLower } from "./lowerView";
import { NightPanel } from "./night/NightPanel";
import { BesideView } from "./picture/BesideView";
import { usePictureLook } from "./picture/pictureView";
import { SectionView, sectionTitle } from "./section/SectionView";

export interface ToolProps {
  /** Under the hand: what is drawn follows it. */
  shown: Shown;
  /** As it is read: for what has words and figures. */
  calm: Shown;
  ground: GroundShown | null;
  units: Units;
}

interface Tool<Id extends string> {
  id: Id;
  /** What it answers: its tab, where there is room for it. */
  question: string;
  /** The same in a word. */
  short: string;
  /** What the panel is called to who does not see it. */
  name: string;
  /** Above the panel. */
  title(shown: Shown): string;
  /** The key that turns to it, and back to the one before, with what it does. */
  key?: { key: string; does: string };
  /** Whether it says anything about what is in hand; always, where it is left out. */
  applies?(site: SiteFile, target: string | null): boolean;
  /** What comes with it, and goes. */
  enter?(): void;
  leave?(): void;
  Panel: ComponentType<ToolProps>;
}
const tool = <const Id extends string>(of: Tool<Id>): Tool<Id> => of;

export const TOOLS = [
  tool({
    id: "section",
    question: "Can it be seen?",
    short: "Seen?",
    name: "Side view along the sight line",
    title: sectionTitle,
    Panel: ({ shown }) => <SectionView shown={shown} />,
  }),
  tool({
    id: "beside",
    question: "Which lens?",
    short: "Lens?",
    name: "Compare lenses",
    title: () => "Compare lenses: the same promise in two pictures",
    Panel: ({ calm }) => <BesideView shown={calm} />,
  }),
  tool({
    id: "ground",
    question: "What is covered?",
    short: "Covered?",
    name: "Coverage",
    title: () => "Coverage: what is seen, by how many, and the least-seen route",
    key: { key: "g", does: "what is covered, or the tool before it" },
    leave: () => {
      const { placing, place } = useInHand.getState();
      if (placing === "why" || placing === "goal") place(null);
    },
    Panel: ({ calm, ground, units }) => <GroundPanel site={calm.site} ground={ground} units={units} />,
  }),
  tool({
    id: "lane",
    question: "What reads the plate?",
    short: "Plate?",
    name: "The plate on its path",
    title: () => "Where the plate is readable on its path",
    applies: (site, target) => target !== null && targetOf(site, target)?.subject === "plate",
    Panel: ({ shown, calm }) => <LanePanel shown={shown} calm={calm} />,
  }),
  tool({
    id: "night",
    question: "What does the night do?",
    short: "Night?",
    name: "Night",
    title: () => "What lamps and infrared light do",
    // The picture is by night while the night is looked at, and as the site is judged after that.
    enter: () => usePictureLook.getState().set({ night: true }),
    leave: () => {
      usePictureLook.getState().set({ night: useSite.getState().open?.site.conditions?.night ?? false });
    },
    Panel: ({ calm }) => <NightPanel site={calm.site} />,
  }),
  tool({
    id: "sun",
    question: "When does the sun blind?",
    short: "Sun?",
    name: "Sun",
    title: () => "When the sun stands in the picture",
    Panel: lazyPanel(() =>
      import("./sun/SunPanel").then(({ SunPanel }) => ({ calm }) => <SunPanel site={calm.site} />),
    ),
  }),
  tool({
    id: "designs",
    question: "Which option?",
    short: "Option?",
    name: "Options",
    title: () => "Options: other cameras for the same promises",
    Panel: ({ calm }) => <DesignsPanel site={calm.site} />,
  }),
];

export type ToolId = (typeof TOOLS)[number]["id"];

/** A panel that comes when it is first turned to. */
function lazyPanel(load: () => Promise<ComponentType<ToolProps>>): ComponentType<ToolProps> {
  return lazy(() => load().then((Panel) => ({ default: Panel })));
}

const toolOf = (id: ToolId): Tool<ToolId> | undefined => TOOLS.find((one) => one.id === id);

/** Turns to a tool: what belongs to the one before goes. */
export function turnTo(id: ToolId): void {
  const { tool: before } = useLower.getState();
  if (before === id) return;
  toolOf(before)?.leave?.();
  useLower.setState({ tool: id, before });
  toolOf(id)?.enter?.();
}

/** Turns to a tool, or from it to the one before. */
export function toggle(id: ToolId): void {
  const { tool: now, before } = useLower.getState();
  turnTo(now === id ? before : id);
}
