/** What was refused, and where its faults are; and what fell over. */
import type { Fault } from "./types";

export class Refused extends Error {
  constructor(readonly faults: Fault[]) {
    super(faults.map((fault) => (fault.path ? `${fault.path}: ${fault.message}` : fault.message)).join("\n"));
  }
}

/** The computation itself fell over, or never came: nothing is wrong with what was asked, and it may be asked again. */
export class Fallen extends Error {}

/** Something newer was asked, and nobody answers this any more. */
export class Dropped extends Error {}
