/** Later pictures of cameras held against the ones before, by a worker that stays for the next one as long as somebody compares. */
import { Fallen, Refused } from "./errors";
import type { CompareAsked, CompareTold } from "./compareWorker";
import { solverModule } from "./solverModule";
import type { Compared, Point, ProvingRules } from "./types";

/** How long an answer may take, and how long the worker stays when nothing more comes, ms. */
const LONGEST = 60_000;
const STAYS = 60_000;

interface Both {
  /** The reference, by a name that no other picture has. */
  reference: { name: string; blob: Blob };
  later: Blob;
  hfovDeg: number;
}
export interface ToCompare extends Both {
  limits: Partial<ProvingRules>;
}
export interface ToCarry extends Both {
  /** Shares of the reference's width and height. */
  points: Point[];
}

type Waiting = (told: CompareTold | Fallen) => void;

export class Comparer {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private asked = 0;
  private leaves: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly start: () => Worker,
    private readonly module: () => Promise<WebAssembly.Module>,
  ) {}

  /** Gets ready for pictures of a reference before there is one. */
  ready(reference: ToCompare["reference"]): void {
    // What is wrong with it is told with the first picture.
    this.send(reference, null, new AbortController().signal).catch(() => undefined);
  }

  /** Rejects with `Refused` for pictures that cannot be compared; with null when nobody waits any more. */
  async compared({ reference, later, hfovDeg, limits }: ToCompare, signal: AbortSignal): Promise<Compared | null> {
    const asks = { limits: JSON.stringify(limits) };
    return (await this.send(reference, { blob: later, hfovDeg, asks }, signal)) as Compared | null;
  }

  /** Where points of the reference lie in a later picture, as shares; null for one that is not found again. Rejects as `compared` does. */
  async carried({ reference, later, hfovDeg, points }: ToCarry, signal: AbortSignal): Promise<(Point | null)[] | null> {
    return (await this.send(reference, { blob: later, hfovDeg, asks: { points } }, signal)) as (Point | null)[] | null;
  }

  private async send(
    reference: ToCompare["reference"],
    later: CompareAsked["later"],
    signal: AbortSignal,
  ): Promise<Compared | (Point | null)[] | null> {
    const module = await this.module();
    if (signal.aborted) return null;
    const number = ++this.asked;
    clearTimeout(this.leaves);
    const worker = (this.worker ??= this.started());
    const told = await new Promise<CompareTold | Fallen | null>((settle) => {
      this.waiting.set(number, settle);
      // Its answer is nobody's any more.
      signal.addEventListener("abort", () => settle(null), { once: true });
      setTimeout(() => this.waiting.has(number) && this.end(new Fallen("the comparison does not end")), LONGEST);
      worker.postMessage({ module, number, reference, later } satisfies CompareAsked);
    });
    this.waiting.delete(number);
    if (this.waiting.size === 0) this.leaves = setTimeout(() => this.end(new Fallen("nobody compares")), STAYS);
    if (told === null) return null;
    if (told instanceof Fallen) throw told;
    if ("refused" in told) throw new Refused(JSON.parse(told.refused) as Refused["faults"]);
    if ("failed" in told) {
      // What fell over once is not trusted with the next.
      this.end(new Fallen(told.failed));
      throw new Fallen(told.failed);
    }
    return told.found;
  }

  private started(): Worker {
    const worker = this.start();
    worker.onmessage = ({ data }: MessageEvent<CompareTold>) => this.waiting.get(data.number)?.(data);
    worker.onerror = ({ message }) => this.end(new Fallen(message));
    return worker;
  }

  /** Ends the worker, and tells all who wait why. */
  private end(why: Fallen): void {
    this.worker?.terminate();
    this.worker = null;
    for (const settle of this.waiting.values()) settle(why);
    this.waiting.clear();
  }
}

export const comparer = new Comparer(
  () => new Worker(new URL("./compareWorker.ts", import.meta.url), { type: "module" }),
  solverModule,
);
