/** The worker that routes: a core of its own, which comes when it is asked for. */
import init, { route } from "./made/route";

export interface RouteAsked {
  module: WebAssembly.Module;
  site: string;
  wishes: string[];
}
/** The answer to a wish by its place, what was refused, or what fell over. */
export type RouteTold = { place: number; answer: string } | { refused: string } | { failed: string };

self.onmessage = ({ data }: MessageEvent<RouteAsked>): void => {
  void (async () => {
    try {
      await init({ module_or_path: data.module });
      for (const [place, wish] of data.wishes.entries())
        self.postMessage({ place, answer: route(data.site, wish) } satisfies RouteTold);
    } catch (thrown) {
      // What the core refuses it says as JSON; anything else is a fault of its own.
      const told: RouteTold = typeof thrown === "string" ? { refused: thrown } : { failed: String(thrown) };
      self.postMessage(told);
    }
  })();
};
