/** Moving about the plan: drag, wheel, pinch and keys, and the sheet's size. */
import { type RefObject, useEffect, useRef } from "react";
import useMeasure from "react-use-measure";
import { tinykeys } from "tinykeys";
import type { SiteFile } from "../core/types";
import { type Handles, useHandles } from "../ui/Handle";
import { free } from "../ui/keys";
import { usePlanView } from "./planView";
import { fitting, toScreen, zoomed } from "./view";

interface Gestures {
  sheet: RefObject<HTMLDivElement | null>;
  measured: (element: HTMLElement | SVGElement | null) => void;
  handles: Handles;
}

/** `id` names the site: another one is shown whole. */
export function usePlanGestures(site: SiteFile, id: string): Gestures {
  const sheet = useRef<HTMLDivElement>(null);
  const { set } = usePlanView.getState();
  const handles = useHandles(sheet, {
    onPan: ([u, v]) => {
      const view = usePlanView.getState();
      set({ centre: [view.centre[0] - u / view.scale, view.centre[1] + v / view.scale] });
    },
    onWheel: (turned, at) => set(zoomed(usePlanView.getState(), Math.exp(-turned / 500), at)),
    onPinch: (scale, at) => set(zoomed(usePlanView.getState(), Math.exp(scale), at)),
  });
  const measured = useFitting(site, id);
  usePlanKeys(site);
  return { sheet, measured, handles };
}

/** Keeps the plan's size, and shows all of a site when it is opened. */
function useFitting(site: SiteFile, id: string): Gestures["measured"] {
  const [measured, { width, height }] = useMeasure();
  const fitted = useRef("");
  useEffect(() => {
    if (width === 0) return;
    const again = fitted.current === id;
    const { size, set } = usePlanView.getState();
    // Another view draws everything anew: a site that changes is none.
    if (again && size[0] === width && size[1] === height) return;
    fitted.current = id;
    set({ size: [width, height], ...(again ? {} : fitting(site, [width, height])) });
  }, [width, height, id, site]);
  return measured;
}

function usePlanKeys(site: SiteFile): void {
  const latest = useRef(site);
  useEffect(() => {
    latest.current = site;
  });
  useEffect(() => {
    const { set } = usePlanView.getState();
    const move = (east: number, north: number) =>
      free(() => {
        const view = usePlanView.getState();
        set({ centre: [view.centre[0] + (east * 60) / view.scale, view.centre[1] + (north * 60) / view.scale] });
      });
    const zoom = (factor: number) =>
      free(() => {
        const view = usePlanView.getState();
        set(zoomed(view, factor, toScreen(view, view.centre)));
      });
    return tinykeys(window, {
      "$mod+ArrowLeft": move(-1, 0),
      "$mod+ArrowRight": move(1, 0),
      "$mod+ArrowUp": move(0, 1),
      "$mod+ArrowDown": move(0, -1),
      "+": zoom(1.25),
      "Shift++": zoom(1.25),
      "=": zoom(1.25),
      "-": zoom(0.8),
      "0": free(() => set(fitting(latest.current, usePlanView.getState().size))),
    });
  }, []);
}
