/** The tours of a site as the core reckons them, and how far their heads reach zoomed in. */
import type { SiteFile, Tours } from "./types";
import { useAnswer } from "./useAsked";

export type Tour = Tours["tours"][number];

/** The tour of a head; `event` is how long something lasts that it should not miss, s. */
export function useTour(
  site: SiteFile,
  camera: string,
  head: string,
  event: number,
): { tour: Tour | undefined; settled: boolean } {
  const { value, settled } = useAnswer(site, { ask: "tours", event_s: event }, { rest: "live" });
  return { tour: value?.tours.find((tour) => tour.camera === camera && tour.head === head), settled };
}
