/** Asks for one panel: at once and the newest next, or when the site has come to rest; tells what it hears with what was asked. */
import { askAgain } from "./again";
import { Dropped, Fallen, Refused } from "./errors";
import { onceAtRest } from "./hand";
import { Latest } from "./latest";
import type { Fault, SiteFile } from "./types";

export interface Wish<T> {
  site: SiteFile;
  question: string;
  ask: (site: SiteFile, soFar: (value: T) => boolean) => Promise<T>;
}

export interface Heard<T> {
  wish: Wish<T>;
  value: T;
  whole: boolean;
}

export class Asker<T> {
  private newest: Wish<T> | null = null;
  private readonly live: Latest<Wish<T>, T>;

  constructor(
    every: number,
    private readonly hear: (heard: Heard<T>) => void,
    private readonly refuse: (fault: { wish: Wish<T>; faults: Fault[] }) => void,
  ) {
    this.live = new Latest(
      (wish) => this.ask(wish),
      (wish, value) => hear({ wish, value, whole: true }),
      (took) => (every > 0 ? Math.max(every - took, took) : 0),
      (wish, error) => this.fail(wish, error),
    );
  }

  askNow(wish: Wish<T>): () => void {
    this.newest = wish;
    this.live.want(wish);
    return () => this.leave(wish);
  }

  askAtRest(wish: Wish<T>, rest: number): () => void {
    this.newest = wish;
    const waits = onceAtRest(rest, () => {
      askAgain(
        () => this.ask(wish),
        () => this.newest === wish,
      ).then(
        (value) => this.newest === wish && this.hear({ wish, value, whole: true }),
        (error: unknown) => this.newest === wish && this.fail(wish, error),
      );
    });
    return () => {
      this.leave(wish);
      waits();
    };
  }

  stop(): void {
    this.newest = null;
    this.live.stop();
  }

  private leave(wish: Wish<T>): void {
    if (this.newest === wish) this.newest = null;
  }

  private ask(wish: Wish<T>): Promise<T> {
    return wish.ask(wish.site, (value) => {
      const waited = this.newest === wish;
      if (waited) this.hear({ wish, value, whole: false });
      return waited;
    });
  }

  private fail(wish: Wish<T>, error: unknown): void {
    if (error instanceof Fallen || error instanceof Dropped) return;
    this.refuse({ wish, faults: error instanceof Refused ? error.faults : [{ path: "", message: String(error) }] });
  }
}
