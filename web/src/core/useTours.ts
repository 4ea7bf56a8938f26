/** The tours of a site as the core reckons them, and how far their heads reach zoomed in. */
import { useEffect, useState } from "react";
import { core } from "./port";
import type { SiteFile, Tours } from "./types";

export type Tour = Tours["tours"][number];

/** The tour of a head; `event` is how long something lasts that it should not miss, s. */
export function useTour(site: SiteFile, camera: string, head: string, event: number): Tour | undefined {
  const [told, setTold] = useState<Tours | null>(null);
  useEffect(() => {
    let current = true;
    core.tours(site, event).then(
      (tours) => current && setTold(tours),
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [site, event]);
  return told?.tours.find((tour) => tour.camera === camera && tour.head === head);
}
