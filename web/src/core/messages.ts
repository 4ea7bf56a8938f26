/** What goes to a worker that holds the core, and what comes back. Sites, changes and questions are JSON, as the core reads them. */
import type { ReliefWish } from "./types";

export interface Request {
  id: number;
  /** The state that the question is about, by a number of its own. */
  state: number;
  /** The state that a change, or no change, is reckoned from; a worker that holds another one is out of step. */
  base: number;
  /** A site file to open; or */
  open?: string;
  /** a change of the one that is open. */
  change?: string;
  /** The firm's own models, JSON, where the worker has others. */
  stock?: string;
  /** A question. */
  ask?: string;
  /** How many see each cell of the ground that was asked about, at this need, px/m. */
  counts?: number;
  /** A relief of this worker's share of the heads. */
  relief?: { wish: ReliefWish; slot: number; hand: number; hands: number };
  /** The picture of a head, JSON, and the name of the overhead picture that lies on the ground. */
  picture?: { head: string; wish: string; overhead: string | null };
}

export interface Reply {
  id: number;
  /** The answer to the question, JSON. */
  answer?: string;
  /** The worker holds another state than the one that was reckoned from: it has to be opened anew. */
  outOfStep?: boolean;
  /** The faults of what was refused. */
  refused?: string;
  /** The core itself fell over: the worker is of no use any more. */
  broken?: boolean;
  /** How many see each cell of the ground. */
  counts?: Uint8Array;
  /** The best density of each cell. */
  best?: Float32Array;
  /** The pixels of a picture: red, green, blue and opacity, and what it shows, JSON. */
  rgba?: Uint8Array;
  told?: string;
  /** Something newer was wished for before this was done. */
  dropped?: boolean;
}

/** The first message to a worker: the compiled module, and the lock that it holds as long as it lives. */
export interface Start {
  module: WebAssembly.Module;
  life: string;
}

/** What comes from a worker: that it is ready, and whether it holds its lock; that it cannot be; an answer. */
export type FromWorker = { ready: boolean } | { failed: string } | Reply;
