/** Lengths as people write them: metres, or feet and inches. Inside everything is metres. */
import type { Units } from "../core/types";
import { parseNumber } from "./number";

const INCH = 0.0254;
/** Metres in a foot, by definition. */
export const FOOT = 0.3048;
/** The unit that lengths are in, m: what a density is counted over, too. */
export const unitOf = (units: Units): number => (units === "feet" ? FOOT : 1);
const UNIT: Record<string, number> = {
  m: 1,
  metre: 1,
  metres: 1,
  meter: 1,
  meters: 1,
  cm: 0.01,
  mm: 0.001,
  ft: FOOT,
  foot: FOOT,
  feet: FOOT,
  "'": FOOT,
  "′": FOOT,
  "’": FOOT,
  in: INCH,
  inch: INCH,
  inches: INCH,
  '"': INCH,
  "″": INCH,
  "”": INCH,
  "''": INCH,
};
const PART = /^\s*([+-]?\d+(?:[.,]\d+)?)\s*('{2}|[a-z]+|['′’"″”])?/i;

/**
 * Reads a length such as `3.6`, `3,6 m`, `11' 10"`, `11 ft 10 in` or `142 in`. A bare number is in the
 * unit in use. Answers metres, or null for what is no length.
 */
export function parseLength(text: string, units: Units): number | null {
  let rest = text.trim();
  if (rest === "") return null;
  let total = 0;
  let sign = 1;
  let last = Infinity;
  for (let part = 0; rest !== ""; part++) {
    const match = PART.exec(rest);
    if (!match?.[1]) return null;
    const value = parseNumber(match[1]) ?? NaN;
    // After feet a bare number is inches, as in 11' 10.
    const bare = part === 0 ? (units === "feet" ? FOOT : 1) : last === FOOT ? INCH : undefined;
    const unit = match[2] ? UNIT[match[2].toLowerCase()] : bare;
    // Later parts must be in smaller units and unsigned.
    if (unit === undefined || unit >= last || (part > 0 && /^[+-]/.test(match[1]))) return null;
    if (part === 0) sign = match[1].startsWith("-") ? -1 : 1;
    total += Math.abs(value) * unit;
    last = unit;
    rest = rest.slice(match[0].length).trim();
  }
  return Number.isFinite(total) ? sign * total : null;
}

/** A length with its unit: `3.60 m`, or `11' 10"` to the nearest inch. */
export function formatLength(metres: number, units: Units, digits = 2): string {
  if (units === "metres") return `${metres.toFixed(digits)} m`;
  const inches = Math.round(Math.abs(metres) / INCH);
  const sign = metres < 0 && inches > 0 ? "-" : "";
  return `${sign}${Math.floor(inches / 12)}' ${inches % 12}"`;
}

/** An area with its unit: `84 m²`, or `904 sq ft`. */
export function formatArea(square: number, units: Units): string {
  return units === "metres" ? `${Math.round(square)} m²` : `${Math.round(square / (FOOT * FOOT))} sq ft`;
}

/** A round length at most `metres` long, for scale bars and grids: 1, 2 or 5 times a power of ten. */
export function roundLength(metres: number, units: Units): number {
  const unit = unitOf(units);
  const value = metres / unit;
  const power = 10 ** Math.floor(Math.log10(value));
  const step = [5, 2, 1].find((s) => s * power <= value) ?? 1;
  return step * power * unit;
}

/** A round length as a label: `20 m`, `50 ft`. */
export function roundLabel(metres: number, units: Units): string {
  const value = metres / unitOf(units);
  return `${Number(value.toPrecision(3))} ${units === "feet" ? "ft" : "m"}`;
}

/** The step by which wheel and keys change a length. */
export function lengthStep(units: Units): number {
  return units === "feet" ? INCH : 0.05;
}
