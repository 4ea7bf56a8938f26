/** A speed as it is said on the road: kilometres or miles an hour; the file keeps metres a second. */
import { GUIDE } from "../core/guide";
import type { Units } from "../core/types";
import { type Quantity, plain } from "./Measure";

/** Metres in a mile, by definition. */
const MILE = 1609.344;

/** So many of the road's unit are a metre a second. */
const times = (units: Units): number => (units === "feet" ? 3600 / MILE : GUIDE.kmh);

export const speed = (units: Units): Quantity => plain(units === "feet" ? "mph" : "km/h", 0, 1);
export const onTheRoad = (mps: number | null | undefined, units: Units): number => (mps ?? 0) * times(units);
export const inTheFile = (value: number, units: Units): number => Number((value / times(units)).toFixed(4));
