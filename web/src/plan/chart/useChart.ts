/** A canvas with the chart that a worker draws, laid under the plan as that moves; the newest raster that is drawn there. */
import { type RefObject, useEffect, useLayoutEffect, useRef, useState } from "react";
import { waitAfter } from "../../core/again";
import { nextLife, onEnd } from "../../core/life";
import { Latest } from "../../core/latest";
import type { Raster } from "../../core/reliefs";
import { type PlanView, toScreen, toSite } from "../view";
import type { ChartPicture, ChartRequest, ChartView, FromChart, Inks, ToChart } from "./messages";

/** How far past the plan's edges the chart is drawn, share of its size. */
const MARGIN = 0.12;
/** How long a plan must rest before the chart is drawn where it lies now, ms: meanwhile it is moved as it is. */
const REST = 120;

/** The worker, and the canvas that what it draws is put on. */
class ChartPress {
  private readonly worker = new Worker(new URL("./chartWorker.ts", import.meta.url), { type: "module" });
  private readonly canvas = document.createElement("canvas");
  private readonly context = this.canvas.getContext("bitmaprenderer");
  private readonly watch = new AbortController();
  private last = 0;
  private readonly waiting = new Map<number, { drawn(): void; fail(error: Error): void }>();
  /** The view that what stands on the canvas was drawn at, and the one that the plan has now. */
  private drawnAt: PlanView | null = null;
  private now: PlanView | null = null;

  /** `onFall` hears when the worker falls over or cannot be loaded: what it drew stays, and it draws no more. */
  constructor(frame: HTMLElement, onFall: () => void) {
    frame.append(this.canvas);
    const life = nextLife();
    this.worker.postMessage({ life } satisfies ToChart);
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
      if (data.picture) this.put(data.picture);
      if (data.drawn === null) return;
      this.waiting.get(data.drawn)?.drawn();
      this.waiting.delete(data.drawn);
    };
    this.worker.onerror = (event) => {
      event.preventDefault();
      fell(event.message);
    };
  }

  private put({ bitmap, view }: ChartPicture): void {
    this.context?.transferFromImageBitmap(bitmap);
    this.drawnAt = view;
    this.lay();
  }

  /** Moves what is drawn to where the plan has it now. */
  private lay(): void {
    const { drawnAt, now } = this;
    if (!drawnAt || !now) return;
    const [u, v] = toScreen(now, toSite(drawnAt, [0, 0]));
    this.canvas.style.width = `${drawnAt.size[0]}px`;
    this.canvas.style.height = `${drawnAt.size[1]}px`;
    this.canvas.style.transform = `translate(${u}px, ${v}px) scale(${now.scale / drawnAt.scale})`;
  }

  /** Follows the plan; answers whether what is drawn still lies under all of it. */
  follow(view: PlanView): boolean {
    this.now = view;
    this.lay();
    if (!this.drawnAt) return false;
    const [left, top] = toScreen(view, toSite(this.drawnAt, [0, 0]));
    const [right, bottom] = toScreen(view, toSite(this.drawnAt, this.drawnAt.size));
    return left <= 0 && top <= 0 && right >= view.size[0] && bottom >= view.size[1];
  }

  show(show: ChartView): Promise<void> {
    return this.asked((id) => ({ show, id }));
  }

  make(request: Omit<ChartRequest, "id">): Promise<void> {
    return this.asked((id) => ({ make: { ...request, id } }));
  }

  private asked(message: (id: number) => ToChart): Promise<void> {
    const id = ++this.last;
    return new Promise((drawn, fail) => {
      this.waiting.set(id, { drawn, fail });
      this.worker.postMessage(message(id));
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
interface Held {
  press: ChartPress;
  rasters: Latest<Wish, void>;
  views: Latest<ChartView, void>;
}

/** The plan's view with room around it. */
const wider = ({ centre, scale, size: [wide, tall] }: PlanView): PlanView => ({
  centre,
  scale,
  size: [Math.round(wide * (1 + 2 * MARGIN)), Math.round(tall * (1 + 2 * MARGIN))],
});

/** Draws a raster in a frame under a view; answers which one is drawn. */
export function useChart(
  frame: RefObject<HTMLElement | null>,
  raster: Raster | null,
  needs: number[],
  view: PlanView,
  over: boolean,
  inks: Inks,
  over_m: number,
): Raster | null {
  const [drawn, setDrawn] = useState<Raster | null>(null);
  const press = useRef<Held | null>(null);
  // Another press takes the place of one that fell over, later and later.
  const [presses, setPresses] = useState(1);
  useEffect(() => {
    if (!frame.current) return;
    let again: ReturnType<typeof setTimeout> | undefined;
    const made = new ChartPress(frame.current, () => {
      setDrawn(null);
      again = setTimeout(() => setPresses(presses + 1), waitAfter(presses));
    });
    const rasters = new Latest<Wish, void>(
      ({ raster: { wish, columns, rows, values }, ...rest }) => made.make({ wish, columns, rows, values, ...rest }),
      ({ raster: of }) => setDrawn(of),
      // Half of a core at most.
      (took) => took,
    );
    const views = new Latest<ChartView, void>(
      (show) => made.show(show),
      () => undefined,
    );
    press.current = { press: made, rasters, views };
    return () => {
      clearTimeout(again);
      press.current = null;
      rasters.stop();
      views.stop();
      made.end();
    };
  }, [frame, presses]);
  const { centre, scale, size } = view;
  // With the marks of the plan, in the same frame.
  const reaches = useRef(false);
  useLayoutEffect(() => {
    reaches.current = press.current?.press.follow({ centre, scale, size }) ?? false;
  }, [centre, scale, size, presses]);
  const [wide, tall] = size;
  const shownAs = useRef("");
  useEffect(() => {
    if (wide === 0) return;
    const show = (): void =>
      press.current?.views.want({
        view: wider({ centre, scale, size: [wide, tall] }),
        over,
        inks,
        over_m,
        ratio: window.devicePixelRatio || 1,
      });
    // Another look, another size, or bare paper at an edge: at once.
    const as = `${presses} ${over} ${inks.paper} ${over_m} ${wide} ${tall}`;
    if (shownAs.current !== as || !reaches.current) {
      shownAs.current = as;
      return show();
    }
    const timer = setTimeout(show, REST);
    return () => clearTimeout(timer);
  }, [centre, scale, wide, tall, over, inks, over_m, presses]);
  useEffect(() => {
    if (raster) press.current?.rasters.want({ raster, needs, scale });
    // The scale is that which the raster was wished at: it is drawn at others meanwhile.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [raster, needs, presses]);
  return drawn;
}
