/**
 * A worker that follows a site. Whoever asks says which state of the site the question is about; the worker is told what
 * changed since the last one, so that an answer is always of the state that was asked about.
 */
import { Fallen, Refused } from "./errors";
import type { Reply, Request } from "./messages";
import { tellTrouble, tellWell } from "./state";
import { siteChange } from "./siteChange";
import { stockNow } from "./stock";
import type { Ask, Fault, HeadRef, PictureWish, SiteFile } from "./types";

/** What is asked of a worker: a question, a raster or a picture. */
export interface Job extends Pick<Request, "counts" | "relief"> {
  ask?: Ask;
  picture?: { head: HeadRef; wish: PictureWish; overhead: string | null };
}

/** How a worker is made; the tests put something of their own in its place. */
export interface WorkerLike {
  postMessage(message: unknown): void;
  terminate(): void;
  onmessage: ((event: { data: Reply }) => void) | null;
  /** It ended, or never came; why. */
  onfall: ((why: string) => void) | null;
}

interface Waiting {
  site: SiteFile;
  job: Job;
  settle(reply: Reply): void;
  fail(error: Error): void;
}

export class Follower {
  private worker: WorkerLike | null = null;
  /** The state that the worker will hold once it has worked through what was posted; null where that is not sure. */
  private held: { site: SiteFile; state: number } | null = null;
  /** Which of the firm's stocks the worker has. */
  private stock = 0;
  private last = 0;
  private readonly waiting = new Map<number, Waiting>();

  constructor(private readonly make: () => WorkerLike) {}

  /** Starts the worker, if it does not run yet. */
  start(): void {
    if (this.worker) return;
    const worker = this.make();
    this.worker = worker;
    this.stock = 0;
    worker.onmessage = ({ data }) => {
      if (this.worker === worker) this.settle(data);
    };
    worker.onfall = (why) => {
      if (this.worker === worker) this.fall(why);
    };
  }

  /** The state that it follows, if it has been asked about one. */
  get site(): SiteFile | null {
    return this.held?.site ?? null;
  }

  /** Whether something is under way. */
  get busy(): boolean {
    return this.waiting.size > 0;
  }

  /**
   * Asks about a state of a site. Rejects with `Refused` for a state, or a question, that makes no sense, and with `Fallen` if the
   * worker falls over or never comes: then the next question starts another.
   */
  run(site: SiteFile, job: Job): Promise<Reply> {
    this.start();
    return new Promise<Reply>((settle, fail) => this.post({ site, job, settle, fail }, this.held));
  }

  /** Ends the worker at once; what it was asked is never answered. The next question starts another. */
  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    this.held = null;
    const dropped = [...this.waiting.values()];
    this.waiting.clear();
    for (const { settle } of dropped) settle({ id: 0, dropped: true });
  }

  /**
   * The worker is of no use any more, and the next question starts another. Who asked what made it fall is told; without such a
   * one all who wait are. The others' questions go to the new worker.
   */
  private fall(why: string, guilty?: Waiting): void {
    this.worker?.terminate();
    this.worker = null;
    this.held = null;
    const left = [...this.waiting.values()];
    this.waiting.clear();
    tellTrouble(this, why);
    const told = guilty ? [guilty] : left;
    for (const { fail } of told) fail(new Fallen(why));
    if (!guilty || left.length === 0) return;
    this.start();
    for (const waiting of left) this.post(waiting, this.held);
  }

  private post(waiting: Waiting, from: { site: SiteFile; state: number } | null): void {
    const { site, job } = waiting;
    const id = ++this.last;
    const request: Request = {
      id,
      state: id,
      base: from?.state ?? 0,
      ...(job.ask && { ask: JSON.stringify(job.ask) }),
      ...(job.counts !== undefined && { counts: job.counts }),
      ...(job.relief && { relief: job.relief }),
      ...(job.picture && { picture: written(job.picture) }),
    };
    const stock = stockNow();
    if (stock.number !== this.stock) {
      request.stock = stock.models;
      this.stock = stock.number;
    }
    const change = from && siteChange(from.site, site);
    if (!from) request.open = JSON.stringify(site);
    else if (change) request.change = JSON.stringify(change);
    // Messages are worked through in order: the next change is reckoned from this state.
    this.held = { site, state: id };
    this.waiting.set(id, waiting);
    this.worker?.postMessage(request);
  }

  private settle(reply: Reply): void {
    const waiting = this.waiting.get(reply.id);
    if (!waiting) return;
    this.waiting.delete(reply.id);
    if (reply.broken) {
      const [fault] = JSON.parse(reply.refused ?? "[]") as Fault[];
      return this.fall(fault?.message ?? "it fell over", waiting);
    }
    tellWell(this);
    if (reply.outOfStep) this.post(waiting, null);
    else if (reply.refused === undefined) waiting.settle(reply);
    else {
      // A refused change leaves the worker where it was; a refused question does not. Opening anew is right for both.
      this.held = null;
      waiting.fail(new Refused(JSON.parse(reply.refused) as Fault[]));
    }
  }
}

const written = ({ head, wish, overhead }: NonNullable<Job["picture"]>): Request["picture"] => ({
  head: JSON.stringify(head),
  wish: JSON.stringify(wish),
  overhead,
});
