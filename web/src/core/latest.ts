import { waitAfter } from "./again";
import { Fallen } from "./errors";

/**
 * Works through wishes, the newest first, one at a time: while one is under way only the newest of those that come is kept.
 * Nothing piles up under a fast hand, and what is told is always told with the wish that it is of.
 */
export class Latest<Wish, Answer> {
  private tries = 0;
  private next: { wish: Wish } | null = null;
  private busy = false;
  private stopped = false;

  constructor(
    private readonly work: (wish: Wish) => Promise<Answer>,
    private readonly tell: (wish: Wish, answer: Answer) => void,
    /** How long to pause after an answer was told, ms, by how long it took and to what: what is in the way of a hand is done less often. */
    private readonly pause: (took: number, wish: Wish) => number = () => 0,
    /** Told of a wish that had no answer. What fell over is wished for again by itself. */
    private readonly fail: (wish: Wish, error: unknown) => void = () => undefined,
  ) {}

  want(wish: Wish): void {
    this.next = { wish };
    if (!this.busy) void this.go();
  }

  /** Whether nothing is under way or waiting, or pausing. */
  get idle(): boolean {
    return !this.busy && !this.next;
  }

  stop(): void {
    this.stopped = true;
    this.next = null;
  }

  private readonly isStopped = (): boolean => this.stopped;

  private async go(): Promise<void> {
    this.busy = true;
    while (this.next) {
      const { wish } = this.next;
      this.next = null;
      const began = performance.now();
      try {
        const answer = await this.work(wish);
        this.tries = 0;
        if (!this.stopped) this.tell(wish, answer);
      } catch (error) {
        if (!this.stopped) this.fail(wish, error);
        if (error instanceof Fallen && !this.stopped) {
          await new Promise((done) => setTimeout(done, waitAfter(++this.tries)));
          // Something newer may have been wished for meanwhile, or nobody waits any more.
          if (!this.isStopped()) this.next ??= { wish };
        }
      }
      const pause = this.pause(performance.now() - began, wish);
      if (pause > 0) await new Promise((done) => setTimeout(done, pause));
    }
    this.busy = false;
  }
}
