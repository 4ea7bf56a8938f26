/** The worker that asks the solver: a core of its own, which comes when it is asked for. */
import init, { offer, route } from "./made/route";

export type SolverTask = { kind: "route"; wish: string } | { kind: "offer"; ask: string; own: string };
export interface SolverAsked {
  module: WebAssembly.Module;
  site: string;
  tasks: SolverTask[];
}
/** The answer to a task by its place, how much of one is done, what was refused, or what fell over. */
export type SolverTold =
  { place: number; answer: string } | { place: number; share: number } | { refused: string } | { failed: string };

let working = 0;
/** The core calls it while it works. */
Object.assign(self, {
  tellProgress: (share: number): void => self.postMessage({ place: working, share } satisfies SolverTold),
});

self.onmessage = ({ data }: MessageEvent<SolverAsked>): void => {
  void (async () => {
    try {
      await init({ module_or_path: data.module });
      for (const [place, task] of data.tasks.entries()) {
        working = place;
        const answer = task.kind === "route" ? route(data.site, task.wish) : offer(data.site, task.own, task.ask);
        self.postMessage({ place, answer } satisfies SolverTold);
      }
    } catch (thrown) {
      // What the core refuses it says as JSON; anything else is a fault of its own.
      const told: SolverTold = typeof thrown === "string" ? { refused: thrown } : { failed: String(thrown) };
      self.postMessage(told);
    }
  })();
};
