/** Moving about the plan: drag, wheel, pinch and keys. */
import { useGesture } from "@use-gesture/react";
import { type RefObject, useEffect, useRef } from "react";
import type { Point, SiteFile } from "../engine/types";
import { fitting, toScreen, usePlanView, zoomed } from "./planView";
import { useSite } from "../site/store";

export function usePlanGestures(site: SiteFile): RefObject<SVGSVGElement | null> {
  const svg = useRef<SVGSVGElement>(null);
  const id = useSite((state) => state.open?.id);
  useFitting(svg, site, id);
  const at = (x: number, y: number): Point => {
    const box = svg.current?.getBoundingClientRect();
    return [x - (box?.left ?? 0), y - (box?.top ?? 0)];
  };
  useGesture(
    {
      onDrag: ({ delta: [u, v], pinching, event }) => {
        // What lies on the sheet is moved by its own hand.
        if (pinching || (event.target as Element).closest(".handle")) return;
        const view = usePlanView.getState();
        view.set({ centre: [view.centre[0] - u / view.scale, view.centre[1] + v / view.scale] });
      },
      onWheel: ({ event, delta: [, v] }) => {
        event.preventDefault();
        const view = usePlanView.getState();
        view.set(zoomed(view, Math.exp(-v / 500), at(event.clientX, event.clientY)));
      },
      onPinch: ({ origin, delta: [scale], event }) => {
        event.preventDefault();
        const view = usePlanView.getState();
        view.set(zoomed(view, Math.exp(scale), at(origin[0], origin[1])));
      },
    },
    { target: svg, drag: { filterTaps: true }, wheel: { eventOptions: { passive: false } }, pinch: { eventOptions: { passive: false } } },
  );
  usePlanKeys(site);
  return svg;
}

/** Keeps the plan's size, and shows all of a site when it is opened. */
function useFitting(svg: RefObject<SVGSVGElement | null>, site: SiteFile, id: string | undefined): void {
  const latest = useRef(site);
  useEffect(() => {
    latest.current = site;
  });
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    let fitted = false;
    const watch = new ResizeObserver(() => {
      const size: Point = [element.clientWidth, element.clientHeight];
      const view = usePlanView.getState();
      view.set({ size, ...(fitted ? {} : fitting(latest.current, size)) });
      fitted ||= size[0] > 0;
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [svg, id]);
}

function usePlanKeys(site: SiteFile): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.target instanceof HTMLElement && event.target.closest("input, textarea, .ant-modal, .ant-drawer, .ant-select")) return;
      const view = usePlanView.getState();
      const middle = toScreen(view, view.centre);
      const step = 60 / view.scale;
      const moves: Record<string, Point> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] };
      const move = event.ctrlKey || event.metaKey ? moves[event.key] : undefined;
      if (move) view.set({ centre: [view.centre[0] + move[0], view.centre[1] + move[1]] });
      else if (event.ctrlKey || event.metaKey || event.altKey) return;
      else if (event.key === "+" || event.key === "=") view.set(zoomed(view, 1.25, middle));
      else if (event.key === "-") view.set(zoomed(view, 0.8, middle));
      else if (event.key === "0") view.set(fitting(site, view.size));
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [site]);
}
