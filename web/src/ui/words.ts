/** What the rules find, in the trade's words. */
import type { Difference, RuleName, RuleResult, Task, Units } from "../core/types";

export const RULE_WORDS: Record<RuleName, string> = {
  pixel_density: "Pixel density",
  in_view: "In picture, aim slack",
  clear: "Clear line",
  face_from_above: "Face seen from above",
  turned_away: "Face turned away",
  plate_side: "Plate from the side",
  plate_vertical: "Plate from above or below",
  unseen: "Looked away from",
  build: "Aim that the build takes",
  masked: "Privacy mask",
  light_enough: "Light enough",
  overexposed: "Not bleached",
  headlights: "Headlights",
  within_reach: "Out of reach",
  weather: "Weather",
  looks: "Looks at it",
  blur: "Blur by its speed",
  sharp: "Sharp where it reads",
  zone_infrared: "Infrared, end to end",
  lane_width: "One lane wide",
};

export const TASK_WORDS: Record<Task, string> = {
  monitor: "monitor",
  detect: "detect",
  observe: "observe",
  recognise: "recognise",
  identify: "identify",
  inspect: "inspect",
  read: "read",
  read_by_eye: "read by eye",
};

export const density = (value: number): string => (value >= 100 ? value.toFixed(0) : String(Number(value.toFixed(1))));

/** A rule's figure with its unit. */
export function ruleValue(rule: RuleResult, value: number | null = rule.value): string {
  if (value === null)
    return rule.unit === "px/m" ? "out of the picture" : rule.unit === "ip" ? "nothing stated" : "not given";
  if (rule.unit === "deg") return `${rule.rule === "in_view" ? "±" : ""}${value.toFixed(1)}°`;
  if (rule.unit === "px/m") return `${density(value)} px/m`;
  if (rule.rule === "headlights") return shutter(value);
  if (rule.unit === "s") return `for ${seconds(value)}`;
  if (rule.unit === "ip") return `IP${value}`;
  if (rule.rule === "within_reach") return `${value.toFixed(1)} m up`;

  if (rule.unit === "looks") return `${value.toFixed(0)} looks`;
  if (rule.unit === "times") return `${value >= 10 ? value.toFixed(0) : value.toFixed(1)} × what it needs`;
  if (rule.unit === "stops") return `${value.toFixed(1)} stops`;
  if (rule.unit === "px") return `${value.toFixed(1)} px`;
  if (rule.unit === "m") return `${value.toFixed(1)} m`;
  if (rule.unit === "masked")
    return value === 0 ? "nothing of it" : value > 0.995 ? "all of it" : `${share(value)} of it masked`;
  if (value === 0) return "nothing in the way";
  return value > 0.995 ? "all of it hidden" : `${share(value)} of it hidden`;
}

/** What the figure is held against. */
export function ruleLimit(rule: RuleResult): string {
  const { limit } = rule;
  if (limit === null) return "nobody said for how long it may";
  if (rule.unit === "px/m") return `≥ ${density(limit)} px/m`;
  if (rule.rule === "headlights") return `≤ ${shutter(limit)}`;
  if (rule.unit === "s") return `≤ ${seconds(limit)}`;
  if (rule.unit === "ip") return `≥ IP${limit}`;
  if (rule.rule === "within_reach") return `≥ ${limit.toFixed(1)} m, or made for it`;
  if (rule.rule === "overexposed") return `≤ ${limit.toFixed(1)} × what it needs`;
  if (rule.rule === "in_view") return `≥ ${limit}°`;
  if (rule.rule === "build") return `the nearer end of what it takes is ${limit}°`;
  if (rule.unit === "deg") return `≤ ${limit}°${rule.broken_past ? `, broken past ${rule.broken_past}°` : ""}`;
  if (rule.unit === "looks")
    return `≥ ${limit.toFixed(0)} looks${rule.broken_past ? `, broken under ${rule.broken_past.toFixed(0)}` : ""}`;
  if (rule.unit === "times") return `≥ ${limit.toFixed(1)} × what it needs`;
  if (rule.unit === "stops") return `≤ ${limit.toFixed(1)} stops`;
  if (rule.unit === "px")
    return `≤ ${limit.toFixed(1)} px${rule.broken_past ? `, broken past ${rule.broken_past.toFixed(1)} px` : ""}`;
  if (rule.unit === "m") return `≤ ${limit.toFixed(1)} m`;
  if (rule.unit === "masked") return limit > 0 ? `≤ ${share(limit)} of it masked` : "nothing of it masked";
  return limit > 0 ? `≤ ${share(limit)} of it hidden` : "nothing in the way";
}

/** A shutter as a photographer writes it. */
const shutter = (value: number): string => `1/${Math.round(1 / value)} s`;

/** A time as it is said. */
export const seconds = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} s`;

/** A share in per cent; what is there at all is not called none. */
export const share = (value: number): string => (value < 0.005 ? "under 1 %" : `${(value * 100).toFixed(0)} %`);

/** The unit word of a length setting. */
export const unitWord = (units: Units): string => (units === "feet" ? "ft" : "m");

/** What a difference between two states of a site is about. */
export const THINGS: Record<Difference["thing"], string> = {
  site: "Site",
  brief: "Brief",
  limit: "Limit",
  drawing: "Drawing",
  spot: "Spot",
  target: "Target",
  camera: "Camera",
  obstacle: "Obstacle",
  private: "Private place",
  lamp: "Lamp",
  place: "Place on the earth",
  reading: "Reading",
  conditions: "Season and light",
  design: "Design",
  variant: "Other design",
};
