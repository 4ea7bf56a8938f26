/** The stages of the work, in its order; each comes when it is first opened. A stage that is not built is not here. */
import { type ComponentType, type LazyExoticComponent, lazy } from "react";
import type { Stage } from "../ui/address";

export interface StageProps {
  /** The part of the stage that the address names, and the thing in it. */
  step: string | null;
  item: string | null;
}

interface StageEntry {
  stage: Stage;
  word: string;
  Screen: LazyExoticComponent<ComponentType<StageProps>>;
  /** What the stage adds to the masthead. */
  Tools: LazyExoticComponent<ComponentType> | null;
  /** What the stage adds to the site's menu: a form of the site's own. */
  Limits: LazyExoticComponent<ComponentType<{ close(): void }>> | null;
}

const Limits = lazy(() => import("../stages/aim/SiteRules").then((module) => ({ default: module.SiteRules })));

export const STAGES: StageEntry[] = [
  {
    stage: "survey",
    word: "Survey",
    Tools: null,
    Limits,
    Screen: lazy(() => import("../stages/survey/SurveyScreen").then((module) => ({ default: module.SurveyScreen }))),
  },
  {
    stage: "aim",
    word: "Aim",
    Limits,
    Screen: lazy(() => import("../stages/aim/AimScreen").then((module) => ({ default: module.AimScreen }))),
    Tools: lazy(() => import("../stages/aim/KeysHelp").then((module) => ({ default: module.KeysHelp }))),
  },
  {
    stage: "wire",
    word: "Wire",
    Tools: null,
    Limits: lazy(() => import("../stages/wire/WireRules").then((module) => ({ default: module.WireRules }))),
    Screen: lazy(() => import("../stages/wire/WireScreen").then((module) => ({ default: module.WireScreen }))),
  },
  {
    stage: "fit",
    word: "Fit",
    Tools: null,
    Limits,
    Screen: lazy(() => import("../stages/fit/FitScreen").then((module) => ({ default: module.FitScreen }))),
  },
  {
    stage: "prove",
    word: "Prove",
    Tools: null,
    Limits: lazy(() => import("../stages/prove/ProveRules").then((module) => ({ default: module.ProveRules }))),
    Screen: lazy(() => import("../stages/prove/ProveScreen").then((module) => ({ default: module.ProveScreen }))),
  },
  {
    stage: "papers",
    word: "Papers",
    Tools: null,
    Limits: null,
    Screen: lazy(() => import("../stages/papers/PapersScreen").then((module) => ({ default: module.PapersScreen }))),
  },
];
