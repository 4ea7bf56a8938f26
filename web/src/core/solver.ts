/** Whoever asks the solver: tasks one after the other, by a worker that ends with them or when nobody waits any more. */
import { Fallen, Refused } from "./errors";
import { solverModule } from "./solverModule";
import type { SolverAsked, SolverTask, SolverTold } from "./solverWorker";
import type { SiteFile } from "./types";

/**
 * Answers each task as it is done. Rejects with `Refused` for what the core refuses; ends when `signal` says so. `onShare` hears how
 * much of a task is done.
 */
export async function solve(
  site: SiteFile,
  tasks: SolverTask[],
  onEach: (place: number, answer: string) => void,
  signal: AbortSignal,
  onShare?: (place: number, share: number) => void,
): Promise<void> {
  const module = await solverModule();
  if (signal.aborted) return;
  const worker = new Worker(new URL("./solverWorker.ts", import.meta.url), { type: "module" });
  try {
    await new Promise<void>((done, fail) => {
      signal.addEventListener("abort", () => done(), { once: true });
      worker.onerror = ({ message }) => fail(new Fallen(message));
      worker.onmessage = ({ data }: MessageEvent<SolverTold>) => {
        if ("refused" in data) fail(new Refused(JSON.parse(data.refused) as Refused["faults"]));
        else if ("failed" in data) fail(new Fallen(data.failed));
        else if ("share" in data) onShare?.(data.place, data.share);
        else {
          onEach(data.place, data.answer);
          if (data.place === tasks.length - 1) done();
        }
      };
      worker.postMessage({ module, site: JSON.stringify(site), tasks } satisfies SolverAsked);
    });
  } finally {
    worker.terminate();
  }
}
