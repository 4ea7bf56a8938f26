/** Routing: three answers, one after the other, by a worker that ends with them or when nobody waits any more. */
import routeUrl from "./made/route_bg.wasm?url";
import { Fallen, Refused } from "./errors";
import type { RouteAsked, RouteTold } from "./routeWorker";
import type { RouteWish, Routed, SiteFile } from "./types";

/** How long the module may take to come, ms. */
const START = 60_000;

export const WISHES: RouteWish[] = ["cheapest", "fewest_aloft", "least_lost"];

/** Answers each wish as it is found. Rejects with `Refused` for a site that cannot be wired at all; ends when `signal` says so. */
export async function routed(
  site: SiteFile,
  onEach: (place: number, answer: Routed) => void,
  signal: AbortSignal,
): Promise<void> {
  const module = await WebAssembly.compileStreaming(
    fetch(routeUrl, { signal: AbortSignal.any([signal, AbortSignal.timeout(START)]) }),
  );
  if (signal.aborted) return;
  const worker = new Worker(new URL("./routeWorker.ts", import.meta.url), { type: "module" });
  try {
    await new Promise<void>((done, fail) => {
      signal.addEventListener("abort", () => done(), { once: true });
      worker.onerror = ({ message }) => fail(new Fallen(message));
      worker.onmessage = ({ data }: MessageEvent<RouteTold>) => {
        if ("refused" in data) fail(new Refused(JSON.parse(data.refused) as Refused["faults"]));
        else if ("failed" in data) fail(new Fallen(data.failed));
        else {
          onEach(data.place, JSON.parse(data.answer) as Routed);
          if (data.place === WISHES.length - 1) done();
        }
      };
      worker.postMessage({
        module,
        site: JSON.stringify(site),
        wishes: WISHES.map((wish) => JSON.stringify(wish)),
      } satisfies RouteAsked);
    });
  } finally {
    worker.terminate();
  }
}
