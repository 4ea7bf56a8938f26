/** What goes to a worker that holds the core, and what comes back. Texts are JSON. */

/** Bounds and cells of a relief, m. */
export interface ReliefWish {
  west: number;
  south: number;
  east: number;
  north: number;
  cell: number;
  height: number;
}

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
  /** Questions. */
  asks: string[];
  /** What is asked about the ground, JSON; with `counts` how many see each cell of it comes, too. */
  ground?: { wish: string; counts: boolean; need: number };
  /** A relief of this worker's share of the heads. */
  relief?: { wish: ReliefWish; slot: number; hand: number; hands: number };
  /**
   * What is asked about the sun: the calendar of a head, the ways out of it, or the hours of all heads, of which some more are
   * worked out at each asking. Heads and units are JSON.
   */
  sun?:
    | { what: "calendar"; head: string; target: string | null; year: number }
    | { what: "ways"; head: string; units: string; year: number }
    | { what: "hours"; year: number; begin: boolean };
  /** The picture of a head: `HeadRef` and `PictureWish`, and the name of the overhead picture that lies on the ground. */
  picture?: { head: string; wish: string; overhead: string | null };
}

export interface Reply {
  id: number;
  /** The answers, in the order of the questions. */
  answers: string[];
  /** The worker holds another state than the one that was reckoned from: it has to be opened anew. */
  outOfStep?: boolean;
  /** The faults of what was refused. */
  refused?: string;
  /** The core itself fell over: the worker is of no use any more. */
  broken?: boolean;
  /** What is told about the ground, JSON. */
  ground?: string;
  /** What is told about the sun, JSON; of the hours whether all are done. */
  sun?: string;
  sunDone?: boolean;
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
