/**
 * The computation as the front end knows it. Today the server answers; a core compiled to
 * WebAssembly could stand in its place.
 */
import { ask } from "./http";
import type { FirstAnswer, FirstAnswerRequest, Line, Measured, MeasureRequest, Model, ReadCsv, SiteFile, Study, Survey, Units, Ways, WorldFile } from "./types";

export interface Engine {
  /** Evaluates a site and draws it, with a section along the line in hand. */
  study(site: SiteFile, line: Line | null, signal: AbortSignal): Promise<Study>;
  /** The ways to keep a sight line, best first. */
  ways(site: SiteFile, line: Line, units: Units, signal: AbortSignal): Promise<Ways>;
  /** The camera models to choose from. */
  catalogue(signal: AbortSignal): Promise<Model[]>;
  /** What a survey lacks, and what its readings make of the drawing. */
  survey(site: SiteFile, signal: AbortSignal): Promise<Survey>;
  /** Which lens a reading asks for, while still on the spot. */
  firstAnswer(asked: FirstAnswerRequest, signal: AbortSignal): Promise<FirstAnswer>;
  /** One shot of the rangefinder, or figures typed in its place. */
  measure(asked: MeasureRequest): Promise<Measured>;
  /** The readings of a CSV file, good lines and bad. */
  readReadings(site: SiteFile, csv: string): Promise<ReadCsv>;
  /** A site's readings as CSV. */
  writeReadings(site: SiteFile): Promise<string>;
  /** What a world file says of a picture. */
  worldFile(text: string): Promise<WorldFile>;
}

export const serverEngine: Engine = {
  study: (site, line, signal) => ask("POST", "/api/study", { site, line }, signal),
  ways: (site, line, units, signal) => ask("POST", "/api/ways", { site, ...line, units }, signal),
  catalogue: (signal) => ask("GET", "/api/catalogue", undefined, signal),
  survey: (site, signal) => ask("POST", "/api/survey", site, signal),
  firstAnswer: (asked, signal) => ask("POST", "/api/first-answer", asked, signal),
  measure: (asked) => ask("POST", "/api/measure", asked),
  readReadings: (site, csv) => ask("POST", "/api/readings/read", { site, csv }),
  writeReadings: (site) => ask("POST", "/api/readings/write", site),
  worldFile: (text) => ask("POST", "/api/world-file", new Blob([text])),
};
