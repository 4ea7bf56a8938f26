/**
 * What stands still on a plan, in a layer of its own: a plan that is moved or zoomed moves the layer, and a thing in hand is drawn
 * beside it, so that hundreds of marks are neither told nor painted anew under a hand.
 */
import { type ReactNode, memo, startTransition, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { LayerProvider, type Lies } from "../ui/Handle";
import type { Point } from "../core/types";
import { type PlanView, toScreen } from "./view";

/** How long a zoom must rest before its marks are drawn at its scale, ms. */
const REST = 140;
/** How much larger or smaller they may look meanwhile. */
const MOST_TIMES = 2;
/** How far from where it was drawn a layer may lie, px: past that the figures of a drawing lose their last places. */
const FARTHEST = 20_000;

/** How the layer was drawn: its middle stands at its corner. */
interface DrawnAt {
  centre: Point;
  scale: number;
}

/** Draws at a view that stays the same while the plan is moved, and while it is being zoomed. */
export const StillLayer = memo(function StillLayer({
  view,
  draw,
}: {
  view: PlanView;
  /** The same function as long as it draws the same. */
  draw(view: PlanView): ReactNode;
}) {
  const [drawn, setDrawn] = useState<DrawnAt>({ centre: view.centre, scale: view.scale });
  const { centre, scale } = view;
  const times = scale / drawn.scale;
  const from = toScreen(view, drawn.centre);
  const far = Math.max(Math.abs(from[0]), Math.abs(from[1])) > FARTHEST;
  if (far || times > MOST_TIMES || times < 1 / MOST_TIMES) setDrawn({ centre, scale });
  useEffect(() => {
    if (scale === drawn.scale) return;
    const timer = setTimeout(() => startTransition(() => setDrawn({ centre, scale })), REST);
    return () => clearTimeout(timer);
  }, [centre, scale, drawn]);
  const lies = useRef<Lies>({ from, times });
  useLayoutEffect(() => {
    lies.current = { from, times };
  });
  return (
    <LayerProvider value={lies}>
      <svg className="plan-still" style={{ transform: `translate(${from[0]}px, ${from[1]}px) scale(${times})` }}>
        <Drawn centre={drawn.centre} scale={drawn.scale} draw={draw} />
      </svg>
    </LayerProvider>
  );
});

const Drawn = memo(function Drawn({
  centre,
  scale,
  draw,
}: DrawnAt & {
  draw(view: PlanView): ReactNode;
}) {
  // The same view while it is the same: marks that have not changed are not drawn again.
  const view = useMemo<PlanView>(() => ({ centre, scale, size: [0, 0] }), [centre, scale]);
  return draw(view);
});
