/** The connected rangefinder, or figures typed in its place: the server speaks to it. */
import type { Measured, MeasureRequest } from "../core/types";
import { request } from "../keep/http";

/** One shot. */
export const measure = (asked: MeasureRequest): Promise<Measured> => request("POST", "/api/measure", asked);
