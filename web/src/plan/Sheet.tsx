/** The sheet of a plan: one view and one gesture handler for all its layers, from the ground up. */
import { memo, type MouseEvent, type ReactNode, useCallback, useEffect, useRef } from "react";
import type { Point, SiteDrawing, SiteFile, Units } from "../core/types";
import { HandlesProvider } from "../ui/Handle";
import { DrawingImage } from "./layers/DrawingImage";
import { StillLayer } from "./StillLayer";
import { Furniture, Grid } from "./layers/Furniture";
import { Patterns } from "./layers/Patterns";
import { usePlanView } from "./planView";
import { type PlanView, fitting, toScreen, toSite, zoomed } from "./view";
import { usePlanGestures } from "./usePlanGestures";
import { Button } from "../ui/controls";
import "./plan.css";

/** A layer of a plan: what follows a hand, or what stands still beside it; that is drawn anew when its function is another one. */
export interface Layer {
  still?: boolean;
  draw(view: PlanView): ReactNode;
}

interface Props {
  site: SiteFile;
  /** Names the site: another one is shown whole. */
  id: string;
  units: Units;
  label: string;
  /** What a tap puts down; without it a tap does nothing. */
  onTap?: ((at: Point) => void) | undefined;
  /** Where the pointer is, while it is over the plan. */
  onHover?: ((at: Point) => void) | undefined;
  className?: string;
  /** Between the ground and what stands on it: the relief. */
  ground?: ReactNode;
  /** What is drawn, from the ground up. */
  layers: readonly Layer[];
  /** What lies over the drawing: legends, cards, words. */
  children?: ReactNode;
}

export function Sheet({ site, id, units, label, onTap, onHover, className = "", ground, layers, children }: Props) {
  const view = usePlanView();
  const { sheet, measured, handles } = usePlanGestures(site, id);
  // What was pressed: a click that ends on a handle is the handle's, also where that has gone over into another layer.
  const onHandle = useRef(false);
  const tap = (at: Point): void => onTap?.(toSite(usePlanView.getState(), at));
  const latest = useRef(site);
  useEffect(() => {
    latest.current = site;
  });
  const all = useCallback(() => {
    const { size, set } = usePlanView.getState();
    set(fitting(latest.current, size));
  }, []);
  return (
    <div className={`plan ${className}`} ref={measured}>
      <Ground view={view} drawing={site.drawing ?? null} units={units} />
      {ground}
      <div
        ref={sheet}
        className={onTap ? "plan-sheet plan-placing" : "plan-sheet"}
        role="group"
        tabIndex={0}
        aria-label={label}
        onPointerDown={({ target }) => {
          onHandle.current = target instanceof Element && target.closest("[data-handle]") !== null;
        }}
        onClick={(event) => onHandle.current || tap(placeOn(event))}
        onPointerMove={onHover && ((event) => onHover(toSite(usePlanView.getState(), placeOn(event))))}
        onKeyDown={(event) => event.key === "Enter" && tap([view.size[0] / 2, view.size[1] / 2])}
      >
        <HandlesProvider value={handles}>
          {view.size[0] > 0 &&
            layers.map(({ still, draw }, place) =>
              still ? (
                <StillLayer key={place} view={view} draw={draw} />
              ) : (
                <svg key={place} className="plan-layer">
                  {draw(view)}
                </svg>
              ),
            )}
        </HandlesProvider>
        {view.size[0] > 0 && (
          <svg className="plan-layer">
            <Furniture view={view} units={units} />
          </svg>
        )}
      </div>
      <Tools onZoom={zoom} onAll={all} />
      {children}
    </div>
  );
}

/** Where a pointer is on the sheet, px: of the sheet, not of what is drawn on it. */
function placeOn({ currentTarget, clientX, clientY }: MouseEvent<HTMLElement>): Point {
  const box = currentTarget.getBoundingClientRect();
  return [clientX - box.left, clientY - box.top];
}

/** Zooms about the middle. */
function zoom(factor: number): void {
  const view = usePlanView.getState();
  view.set(zoomed(view, factor, toScreen(view, view.centre)));
}

const Tools = memo(function Tools({ onZoom, onAll }: { onZoom(factor: number): void; onAll(): void }) {
  return (
    <div className="plan-tools">
      <Button size="small" aria-label="Zoom in" onClick={() => onZoom(1.4)}>
        +
      </Button>
      <Button size="small" aria-label="Zoom out" onClick={() => onZoom(1 / 1.4)}>
        −
      </Button>
      <Button size="small" onClick={onAll}>
        All
      </Button>
    </div>
  );
});

/** The picture from above and the grid, under everything. */
const Ground = memo(function Ground({
  view,
  drawing,
  units,
}: {
  view: PlanView;
  drawing: SiteDrawing | null;
  units: Units;
}) {
  return (
    <svg className="plan-ground">
      <Patterns />
      {view.size[0] > 0 && (
        <>
          <DrawingImage view={view} drawing={drawing} />
          <Grid view={view} units={units} />
        </>
      )}
    </svg>
  );
});
