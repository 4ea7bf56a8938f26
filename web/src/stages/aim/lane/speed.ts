/** A speed as it is said on the road; the file keeps metres a second. */
import { type Quantity, plain } from "../../../ui/Measure";

export const SPEED: Quantity = plain("km/h", 0, 1);
