/** A speed as it is said on the road; the file keeps metres a second. */
import { GUIDE } from "../core/guide";
import { type Quantity, plain } from "./Measure";

export const SPEED: Quantity = plain("km/h", 0, 1);
export const onTheRoad = (mps: number | null | undefined): number => (mps ?? 0) * GUIDE.kmh;
export const inTheFile = (kmh: number): number => Number((kmh / GUIDE.kmh).toFixed(4));
