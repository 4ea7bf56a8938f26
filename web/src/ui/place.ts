/** Where a fault of a site lies, in words: people know cameras and targets, not places in a file. */
import type { Fault, SiteFile } from "../core/types";

const THINGS: Record<string, string> = {
  cameras: "camera",
  heads: "head",
  targets: "target",
  obstacles: "obstacle",
  spots: "spot",
  readings: "reading",
  points: "point",
  outline: "corner",
  photos: "photo",
  scale_from: "distance",
  shots_m: "shot",
  from: "distance",
};
/** Parts that only hold what comes after them. */
const SILENT = new Set(["shape", "distance", "rules", "uncertainties", "lens", "sensor"]);
const UNITS = /_(px_per_m|m|deg|mm|mps|px|share)$/;

/** A place such as `cameras[3].heads[0].focal_mm` in words: `camera 4 (Fuel berth), head 1, focal`. */
export function placeInWords(path: string, site?: SiteFile): string {
  const parts = path.split(".").filter((part) => part !== "");
  const words = parts.flatMap((part, depth) => {
    const [, name = part, place] = /^([^[]+)(?:\[(\d+)\])?/.exec(part) ?? [];
    if (place === undefined) return SILENT.has(name) && depth < parts.length - 1 ? [] : [fieldInWords(name)];
    const list = site?.[name as keyof SiteFile];
    const item = Array.isArray(list) ? (list[Number(place)] as { name?: string } | undefined) : undefined;
    const called = depth === 0 && item?.name ? ` (${item.name})` : "";
    return [`${THINGS[name] ?? fieldInWords(name)} ${Number(place) + 1}${called}`];
  });
  return words.join(", ");
}

const fieldInWords = (name: string): string => name.replace(UNITS, "").replaceAll("_", " ");

/** A fault as a sentence's beginning. */
export function faultInWords({ path, message }: Fault, site?: SiteFile): string {
  const place = /^[a-z_]+(\[\d+\])?(\.|$|\[)/.test(path) && !path.startsWith("line ") ? placeInWords(path, site) : path;
  const said = place === "" ? message : `${place}: ${message}`;
  return said.charAt(0).toUpperCase() + said.slice(1);
}
