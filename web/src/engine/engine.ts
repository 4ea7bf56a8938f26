/**
 * The computation as the front end knows it. Today the server answers; a core compiled to
 * WebAssembly could stand in its place.
 */
import { ask } from "./http";
import type { Line, Model, SiteFile, Study, Units, Ways } from "./types";

export interface Engine {
  /** Evaluates a site and draws it, with a section along the line in hand. */
  study(site: SiteFile, line: Line | null, signal: AbortSignal): Promise<Study>;
  /** The ways to keep a sight line, best first. */
  ways(site: SiteFile, line: Line, units: Units, signal: AbortSignal): Promise<Ways>;
  /** The camera models to choose from. */
  catalogue(signal: AbortSignal): Promise<Model[]>;
}

export const serverEngine: Engine = {
  study: (site, line, signal) => ask("POST", "/api/study", { site, line }, signal),
  ways: (site, line, units, signal) => ask("POST", "/api/ways", { site, ...line, units }, signal),
  catalogue: (signal) => ask("GET", "/api/catalogue", undefined, signal),
};
