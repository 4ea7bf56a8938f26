/** A photo of a monitor, straightened by its four corners. */
import { useEffect, useState } from "react";
import { ask } from "../core/port";
import type { SiteFile } from "../core/types";

/** The map that straightens it; null without corners, or until the core has said it. */
export function useStraight(
  site: SiteFile,
  corners: [number, number][] | null,
  size: [number, number],
): number[] | null {
  const [map, setMap] = useState<number[] | null>(null);
  const asked = corners && JSON.stringify([corners, size]);
  useEffect(() => {
    if (!asked) return;
    let here = true;
    const [of, to] = JSON.parse(asked) as [[number, number][], [number, number]];
    void ask(site, { ask: "straighten", corners: of, size: to }, "surveyor").then(
      (figures) => here && setMap(figures),
      () => here && setMap(null),
    );
    return () => {
      here = false;
    };
    // The map does not hang on the site.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  return asked ? map : null;
}

/** A map of the plane as a transform of the page: pixels of the photo to pixels of the frame. */
export function straight(
  [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1]: number[],
  scale: number,
): React.CSSProperties {
  const figures = [a * scale, d * scale, 0, g, b * scale, e * scale, 0, h, 0, 0, 1, 0, c * scale, f * scale, 0, i];
  return { transform: `matrix3d(${figures.join(",")})`, transformOrigin: "0 0" };
}
