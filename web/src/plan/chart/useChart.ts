/** A canvas that a worker draws the chart on; the newest raster that is drawn there. */
import { type RefObject, useEffect, useRef, useState } from "react";
import { Latest } from "../../core/latest";
import type { Raster } from "../../core/port";
import type { PlanView } from "../view";
import type { ChartRequest, ChartView, Inks, ToChart } from "./messages";

/** The worker with the canvas that it draws on, which is put into a frame on the page. */
class ChartPress {
  private readonly worker = new Worker(new URL("./chartWorker.ts", import.meta.url), { type: "module" });
  private readonly canvas = document.createElement("canvas");
  private last = 0;
  private readonly waiting = new Map<number, () => void>();

  constructor(frame: HTMLElement) {
    frame.append(this.canvas);
    const drawing = this.canvas.transferControlToOffscreen();
    this.worker.postMessage({ canvas: drawing } satisfies ToChart, [drawing]);
    this.worker.onmessage = ({ data }: MessageEvent<number>) => {
      this.waiting.get(data)?.();
      this.waiting.delete(data);
    };
  }

  show(show: ChartView): void {
    this.worker.postMessage({ show } satisfies ToChart);
  }

  make(request: Omit<ChartRequest, "id">): Promise<void> {
    const id = ++this.last;
    return new Promise((drawn) => {
      this.waiting.set(id, drawn);
      this.worker.postMessage({ make: { ...request, id } } satisfies ToChart);
    });
  }

  end(): void {
    this.worker.terminate();
    this.canvas.remove();
  }
}

interface Wish {
  raster: Raster;
  needs: number[];
  scale: number;
}

/** Draws a raster in a frame under a view; answers which one is drawn. */
export function useChart(
  frame: RefObject<HTMLElement | null>,
  raster: Raster | null,
  needs: number[],
  view: PlanView,
  over: boolean,
  inks: Inks,
): Raster | null {
  const [drawn, setDrawn] = useState<Raster | null>(null);
  const press = useRef<{ press: ChartPress; runner: Latest<Wish, void> } | null>(null);
  useEffect(() => {
    if (!frame.current) return;
    const made = new ChartPress(frame.current);
    const runner = new Latest<Wish, void>(
      ({ raster: { wish, columns, rows, values }, ...rest }) => made.make({ wish, columns, rows, values, ...rest }),
      ({ raster: of }) => setDrawn(of),
      // Half of a core at most.
      (took) => took,
    );
    press.current = { press: made, runner };
    return () => {
      press.current = null;
      runner.stop();
      made.end();
    };
  }, [frame]);
  useEffect(() => {
    if (view.size[0] > 0)
      press.current?.press.show({
        view: { centre: view.centre, scale: view.scale, size: view.size },
        over,
        inks,
        ratio: window.devicePixelRatio || 1,
      });
  }, [view, over, inks]);
  const { scale } = view;
  useEffect(() => {
    if (raster) press.current?.runner.want({ raster, needs, scale });
    // The scale is that which the raster was wished at: it is drawn at others meanwhile.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [raster, needs]);
  return drawn;
}
