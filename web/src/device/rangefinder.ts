/** The connected rangefinder, or figures typed in its place: the server speaks to it. */
import type { Measured, MeasureRequest } from "../core/types";
import { ask } from "../keep/http";

/** One shot. */
export const measure = (asked: MeasureRequest): Promise<Measured> => ask("POST", "/api/measure", asked);
