/** A canvas that a worker draws the chart on; the newest raster that is drawn there. */
import { type RefObject, useEffect, useRef, useState } from "react";
import { waitAfter } from "../../core/again";
import { nextLife, onEnd } from "../../core/life";
import { Latest } from "../../core/latest";
import type { Raster } from "../../core/reliefs";
import type { PlanView } from "../view";
import type { ChartRequest, ChartView, FromChart, Inks, ToChart } from "./messages";

/** The worker with the canvas that it draws on, which is put into a frame on the page. */
class ChartPress {
  private readonly worker = new Worker(new URL("./chartWorker.ts", import.meta.url), { type: "module" });
  private readonly canvas = document.createElement("canvas");
  private readonly watch = new AbortController();
  private last = 0;
  private readonly waiting = new Map<number, { drawn(): void; fail(error: Error): void }>();

  /** `onFall` hears when the worker falls over or cannot be loaded: what it drew stays, and it draws no more. */
  constructor(frame: HTMLElement, onFall: () => void) {
    frame.append(this.canvas);
    const drawing = this.canvas.transferControlToOffscreen();
    const life = nextLife();
    this.worker.postMessage({ canvas: drawing, life } satisfies ToChart, [drawing]);
    const fell = (why: string): void => {
      this.watch.abort();
      for (const { fail } of this.waiting.values()) fail(new Error(why));
      this.waiting.clear();
      onFall();
    };
    this.worker.onmessage = ({ data }: MessageEvent<FromChart>) => {
      if ("ready" in data) {
        if (data.ready) onEnd(life, this.watch.signal, () => fell("it has ended"));
        return;
      }
      this.waiting.get(data.drawn)?.drawn();
      this.waiting.delete(data.drawn);
    };
    this.worker.onerror = (event) => {
      event.preventDefault();
      fell(event.message);
    };
  }

  show(show: ChartView): void {
    this.worker.postMessage({ show } satisfies ToChart);
  }

  make(request: Omit<ChartRequest, "id">): Promise<void> {
    const id = ++this.last;
    return new Promise((drawn, fail) => {
      this.waiting.set(id, { drawn, fail });
      this.worker.postMessage({ make: { ...request, id } } satisfies ToChart);
    });
  }

  end(): void {
    this.watch.abort();
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
  // Another press takes the place of one that fell over, later and later.
  const [presses, setPresses] = useState(1);
  useEffect(() => {
    if (!frame.current) return;
    let again: ReturnType<typeof setTimeout> | undefined;
    const made = new ChartPress(frame.current, () => {
      setDrawn(null);
      again = setTimeout(() => setPresses(presses + 1), waitAfter(presses));
    });
    const runner = new Latest<Wish, void>(
      ({ raster: { wish, columns, rows, values }, ...rest }) => made.make({ wish, columns, rows, values, ...rest }),
      ({ raster: of }) => setDrawn(of),
      // Half of a core at most.
      (took) => took,
    );
    press.current = { press: made, runner };
    return () => {
      clearTimeout(again);
      press.current = null;
      runner.stop();
      made.end();
    };
  }, [frame, presses]);
  useEffect(() => {
    if (view.size[0] > 0)
      press.current?.press.show({
        view: { centre: view.centre, scale: view.scale, size: view.size },
        over,
        inks,
        ratio: window.devicePixelRatio || 1,
      });
  }, [view, over, inks, presses]);
  const { scale } = view;
  useEffect(() => {
    if (raster) press.current?.runner.want({ raster, needs, scale });
    // The scale is that which the raster was wished at: it is drawn at others meanwhile.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [raster, needs, presses]);
  return drawn;
}
