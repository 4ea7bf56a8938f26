/** What the rules find, in the trade's words. */
import type { Difference, Model, PartKind, RuleName, RuleResult, Task, Units } from "../core/types";
import { FOOT, formatLength, unitOf } from "./length";

export const RULE_WORDS: Record<RuleName, string> = {
  pixel_density: "Pixel density",
  in_view: "In the picture; aim may be off by",
  clear: "Clear line",
  face_from_above: "Face seen from above",
  turned_away: "Face turned away",
  plate_side: "Plate from the side",
  plate_vertical: "Plate from above or below",
  unseen: "PTZ elsewhere for",
  build: "Tilt range of this camera",
  masked: "Privacy mask",
  light_enough: "Light at the target",
  overexposed: "Plate overexposed",
  headlights: "Headlights",
  within_reach: "Height, out of reach",
  weather: "Weather",
  looks: "Pictures of the plate",
  blur: "Motion blur",
  sharp: "Depth of field",
  zone_infrared: "Infrared, near against far",
  lane_width: "Picture width at the lane",
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

/** The sorts of parts of mounts. */
export const PART_WORDS: Record<PartKind, string> = {
  plate: "plate",
  back_box: "box",
  corner: "corner",
  arm: "arm",
  cap: "cap",
  pipe: "pipe",
  parapet: "parapet",
  pole_strap: "pole",
  ceiling_ring: "ring",
  housing: "housing",
};

/** The word for a form of camera. */
export const formWord = (form: Model["form"]): string => form.replace("_", " ");

/** What cameras may have to do to people at a target, and the choice of it. */
export const SHALL = [
  ["nothing", "not said"],
  ["deter", "deter: be seen"],
  ["go_unnoticed", "not be noticed"],
] as const;

export const density = (value: number): string => (value >= 100 ? value.toFixed(0) : String(Number(value.toFixed(1))));

/** A density with its unit: px/m is what the standard is in, px/ft stands beside it where lengths are in feet. */
export const pixels = (value: number, units: Units): string =>
  `${density(value)} px/m${units === "feet" ? ` · ${density(value * FOOT)} px/ft` : ""}`;

/** A density in the unit in use alone, where there is room for one figure. */
export const shortPixels = (value: number, units: Units): string =>
  `${density(value * unitOf(units))} px/${unitWord(units)}`;

/** Light on a surface: lux, with foot-candles beside them where lengths are in feet. */
export function lux(value: number, units: Units): string {
  const short = (held: number): string =>
    held >= 10 ? held.toFixed(0) : held >= 0.1 ? held.toFixed(1) : held > 0 ? held.toFixed(2) : "0";
  return `${short(value)} lx${units === "feet" ? ` · ${short(value * FOOT * FOOT)} fc` : ""}`;
}

/** A rule's figure with its unit. */
export function ruleValue(rule: RuleResult, units: Units, value: number | null = rule.value): string {
  if (value === null)
    return rule.unit === "px/m" ? "out of the picture" : rule.unit === "ip" ? "not stated" : "not given";
  if (rule.unit === "deg") return `${rule.rule === "in_view" ? "±" : ""}${value.toFixed(1)}°`;
  if (rule.unit === "px/m") return pixels(value, units);
  if (rule.rule === "headlights") return shutter(value);
  if (rule.unit === "s") return seconds(value);
  if (rule.unit === "ip") return `IP${value}`;
  if (rule.rule === "within_reach") return `${formatLength(value, units, 1)} up`;

  if (rule.unit === "looks") return `${value.toFixed(0)} pictures`;
  if (rule.unit === "times") return `${value >= 10 ? value.toFixed(0) : value.toFixed(1)} × what it needs`;
  if (rule.unit === "stops") return times(value);
  if (rule.unit === "px") return `${value.toFixed(1)} px`;
  if (rule.unit === "m") return formatLength(value, units, 1);
  if (rule.unit === "masked")
    return value === 0 ? "nothing of it" : value > 0.995 ? "all of it" : `${share(value)} of it masked`;
  if (value === 0) return "nothing in the way";
  return value > 0.995 ? "all of it hidden" : `${share(value)} of it hidden`;
}

/** What the figure is held against. */
export function ruleLimit(rule: RuleResult, units: Units): string {
  const { limit } = rule;
  if (limit === null) return "no limit stated";
  if (rule.unit === "px/m") return `≥ ${pixels(limit, units)}`;
  if (rule.rule === "headlights") return `≤ ${shutter(limit)}`;
  if (rule.unit === "s") return `≤ ${seconds(limit)}`;
  if (rule.unit === "ip") return `≥ IP${limit}`;
  if (rule.rule === "within_reach") return `≥ ${formatLength(limit, units, 1)}, or made for it`;
  if (rule.rule === "overexposed") return `≤ ${limit.toFixed(1)} × what it needs`;
  if (rule.rule === "in_view") return `≥ ${limit}°`;
  if (rule.rule === "build") return `its tilt range ends at ${limit}°`;
  if (rule.unit === "deg") return `≤ ${limit}°${rule.broken_past ? `, broken past ${rule.broken_past}°` : ""}`;
  if (rule.unit === "looks")
    return `≥ ${limit.toFixed(0)} pictures${rule.broken_past ? `, broken under ${rule.broken_past.toFixed(0)}` : ""}`;
  if (rule.unit === "times") return `≥ ${limit.toFixed(1)} × what it needs`;
  if (rule.unit === "stops") return `≤ ${times(limit)}`;
  if (rule.unit === "px")
    return `≤ ${limit.toFixed(1)} px${rule.broken_past ? `, broken past ${rule.broken_past.toFixed(1)} px` : ""}`;
  if (rule.unit === "m") return `≤ ${formatLength(limit, units, 1)}`;
  if (rule.unit === "masked") return limit > 0 ? `≤ ${share(limit)} of it masked` : "nothing of it masked";
  return limit > 0 ? `≤ ${share(limit)} of it hidden` : "nothing in the way";
}

/** A ratio of light: how many times as bright, and in stops. */
export function times(stops: number): string {
  const ratio = 2 ** stops;
  return `${ratio >= 10 ? ratio.toFixed(0) : ratio.toFixed(1)} × (${stops.toFixed(1)} stops)`;
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
  node: "Box",
  cable: "Cable",
  cable_path: "Cable way",
  price: "Price",
  agreement: "Agreement",
  proof: "Walk test",
  snapshot: "Picture",
  visit: "Visit",
};
