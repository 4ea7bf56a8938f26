/** What was refused, and where its faults are. */
import type { Fault } from "./types";

export class Refused extends Error {
  constructor(readonly faults: Fault[]) {
    super(faults.map((fault) => (fault.path ? `${fault.path}: ${fault.message}` : fault.message)).join("\n"));
  }
}
