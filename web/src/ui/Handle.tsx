/**
 * Something on a drawing that is taken by hand: dragged with the pointer, chosen with a click or Enter. The drawing has one
 * gesture handler (`useHandles`); what cannot be dragged lets the drawing beneath move.
 */
import { useGesture } from "@use-gesture/react";
import {
  createContext,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
  useContext,
  useEffect,
  useId,
  useLayoutEffect,
  useMemo,
  useRef,
} from "react";
import { useHand } from "../core/hand";
import type { Point, SiteFile } from "../core/types";
import { useSite } from "../keep/store";

export interface Drag {
  /** Where the pointer is on the drawing, px. */
  at: Point;
  /** How far it is from where it was pressed, px. */
  moved: Point;
  first: boolean;
  /** One gesture is one way from press to release. */
  gesture: string;
  /** Whether keys move it: a pixel at a time, and to where they say. */
  keys?: boolean;
}

export interface Actions {
  onChoose?: (() => void) | undefined;
  onDrag?: ((drag: Drag) => void) | undefined;
  /** Delete or Backspace on it. */
  onRemove?: (() => void) | undefined;
}

/** Where a layer of a drawing lies on it: from its corner, px, and how much larger than it was drawn. */
export interface Lies {
  from: Point;
  times: number;
}

export type Handles = Map<string, { label: string; actions: Actions; lies: RefObject<Lies> | null }>;

const InDrawing = createContext<Handles>(new Map());
export const HandlesProvider = InDrawing.Provider;

const InLayer = createContext<RefObject<Lies> | null>(null);
/** What is in it lies elsewhere than it is drawn: a hand on it is told where it is as the layer was drawn. */
export const LayerProvider = InLayer.Provider;

/** A drag as the layer sees it that its handle is in. */
function inLayer(drag: Drag, lies: RefObject<Lies> | null): Drag {
  if (!lies) return drag;
  const { from, times } = lies.current;
  const of = (value: number, axis: 0 | 1): number => (value - from[axis]) / times;
  return {
    ...drag,
    at: [of(drag.at[0], 0), of(drag.at[1], 1)],
    moved: [drag.moved[0] / times, drag.moved[1] / times],
  };
}

/** The handle that had the focus when it went; one that comes with its name, in another layer, has it again. */
let focusOf: string | null = null;

/** What the pointer does to the drawing itself. */
interface Beneath {
  onPan?(by: Point): void;
  onWheel?(turned: number, at: Point): void;
  onPinch?(scale: number, at: Point): void;
}

interface Held {
  /** The handle that was pressed, by its key. */
  key: string | undefined;
  box: DOMRect;
  gesture: string;
  /** How far the drawing is to be moved with the next frame, px. */
  panned: Point;
  /** The site before anything was dragged; null where nothing of it is. */
  before: SiteFile | null;
  /** Escape was pressed: what the pointer does until it lets go is nothing. */
  brokenOff: boolean;
}

/** The gesture handler of a drawing: to the handle that was pressed goes what the pointer does, else to the drawing itself. */
export function useHandles(drawing: RefObject<HTMLElement | SVGSVGElement | null>, beneath: Beneath = {}): Handles {
  const handles = useMemo<Handles>(() => new Map(), []);
  const frames = useMemo(() => new PerFrame(), []);
  const dragged = useRef<Held | null>(null);
  // A drag begins a few pixels after the press, and by then something else may lie under the pointer.
  const under = useRef<EventTarget | null>(null);
  useEffect(() => {
    const breakOff = (event: globalThis.KeyboardEvent): void => {
      const held = dragged.current;
      if (event.key !== "Escape" || !held) return;
      event.stopPropagation();
      dragged.current = null;
      held.brokenOff = true;
      frames.drop();
      if (held.before) useSite.getState().takeBack(held.before);
      useHand.setState({ holds: false });
    };
    window.addEventListener("keydown", breakOff, { capture: true });
    return () => window.removeEventListener("keydown", breakOff, { capture: true });
  }, [frames]);
  useEffect(
    () => () => {
      frames.now();
      useHand.setState({ holds: false });
    },
    [frames],
  );
  const at = (x: number, y: number, box = drawing.current?.getBoundingClientRect()): Point => [
    x - (box?.left ?? 0),
    y - (box?.top ?? 0),
  ];
  useGesture(
    {
      onPointerDown: ({ event }) => {
        under.current = event.target;
      },
      onDrag: ({ xy, delta, movement, first, last, tap, pinching, event, startTime, memo }) => {
        const held =
          (memo as Held | undefined) ?? pressed(under.current ?? event.target, startTime, drawing.current, handles);
        const handle = held.key === undefined ? undefined : handles.get(held.key);
        if (held.brokenOff) return held;
        if (tap) handle?.actions.onChoose?.();
        else if (handle?.actions.onDrag) {
          const drag = { at: at(xy[0], xy[1], held.box), moved: movement, first, gesture: held.gesture };
          if (first) {
            held.before = useSite.getState().open?.site ?? null;
            dragged.current = held;
            useHand.setState({ holds: true });
          }
          frames.soon(() => {
            const now = handles.get(held.key ?? "");
            now?.actions.onDrag?.(inLayer(drag, now.lies));
          });
          if (first || last) frames.now();
        } else if (!pinching && beneath.onPan) {
          held.panned = [held.panned[0] + delta[0], held.panned[1] + delta[1]];
          frames.soon(() => {
            beneath.onPan?.(held.panned);
            held.panned = [0, 0];
          });
          if (last) frames.now();
        }
        // Whatever has become of the handle meanwhile.
        if (last) {
          dragged.current = null;
          useHand.setState({ holds: false });
        }
        return held;
      },
      onWheel: ({ event, delta: [, turned] }) => {
        if (!beneath.onWheel) return;
        event.preventDefault();
        beneath.onWheel(turned, at(event.clientX, event.clientY));
      },
      onPinch: ({ origin: [x, y], delta: [scale], event }) => {
        if (!beneath.onPinch) return;
        event.preventDefault();
        beneath.onPinch(scale, at(x, y));
      },
    },
    {
      target: drawing,
      // Heard from the window: what is taken in hand may come into another layer, and its element goes.
      drag: { filterTaps: true, pointer: { keys: false, capture: false } },
      wheel: { eventOptions: { passive: false } },
      pinch: { eventOptions: { passive: false } },
    },
  );
  return handles;
}

/** Does the newest of many things once a frame: a pointer may say more often where it is than the screen can show. */
class PerFrame {
  private waiting: (() => void) | null = null;
  private frame = 0;

  soon(act: () => void): void {
    this.waiting = act;
    this.frame ||= requestAnimationFrame(() => this.now());
  }

  /** Forgets what waits. */
  drop(): void {
    this.waiting = null;
  }

  /** Does at once what waits. */
  now(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    const act = this.waiting;
    this.waiting = null;
    act?.();
  }
}

/** One gesture keeps its name from press to release, whatever becomes of the label meanwhile. */
function pressed(target: EventTarget | null, startTime: number, drawing: Element | null, handles: Handles): Held {
  const key = (target as Element | null)?.closest<SVGGElement>("[data-handle]")?.dataset["handle"];
  const label = key === undefined ? "" : (handles.get(key)?.label ?? "");
  return {
    key,
    box: drawing?.getBoundingClientRect() ?? new DOMRect(),
    gesture: `${label}-${startTime}`,
    panned: [0, 0],
    before: null,
    brokenOff: false,
  };
}

const STEPS: Record<string, Point> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** Keys that follow each other within this time are one gesture, ms. */
const ONE_GESTURE = 1200;
let lastKeys = { key: "", at: 0, gesture: "" };

/** What Ctrl with an arrow does to a handle: a drag by a pixel, with Shift by ten. Answers whether it was one. */
function moveByKey(event: KeyboardEvent<SVGGElement>, onDrag: (drag: Drag) => void, key: string): boolean {
  const step = STEPS[event.key];
  if (!step) return false;
  event.preventDefault();
  event.stopPropagation();
  const held = (event.currentTarget.querySelector(".reach") ?? event.currentTarget).getBoundingClientRect();
  const sheet = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
  const from: Point = [held.x + held.width / 2 - (sheet?.x ?? 0), held.y + held.height / 2 - (sheet?.y ?? 0)];
  const by = step.map((way) => way * (event.shiftKey ? 10 : 1)) as Point;
  const now = Date.now();
  const goesOn = lastKeys.key === key && now - lastKeys.at < ONE_GESTURE;
  const gesture = goesOn ? lastKeys.gesture : `keys-${key}-${now}`;
  lastKeys = { key, at: now, gesture };
  onDrag({ at: from, moved: [0, 0], first: true, gesture, keys: true });
  onDrag({ at: [from[0] + by[0], from[1] + by[1]], moved: by, first: false, gesture, keys: true });
  return true;
}

interface Props extends Actions {
  label: string;
  className?: string;
  pressed?: boolean;
  children: ReactNode;
  testId?: string;
}

export function Handle({
  label,
  className = "",
  pressed: isPressed,
  onChoose,
  onDrag,
  onRemove,
  children,
  testId,
}: Props) {
  const handles = useContext(InDrawing);
  const lies = useContext(InLayer);
  const own = useId();
  // One that goes over into another layer keeps its name.
  const key = testId ?? own;
  const element = useRef<SVGGElement>(null);
  const actions = useRef<Actions>({});
  useLayoutEffect(() => {
    actions.current = { onChoose, onDrag, onRemove };
    handles.set(key, { label, actions: actions.current, lies });
  });
  useLayoutEffect(() => {
    const drawn = element.current;
    if (focusOf === key) drawn?.focus({ preventScroll: true });
    return () => {
      if (drawn !== null && drawn === document.activeElement) {
        focusOf = key;
        // Whoever comes in its place comes in the same step.
        queueMicrotask(() => (focusOf = null));
      }
      handles.delete(key);
    };
  }, [handles, key]);
  return (
    <g
      ref={element}
      data-handle={key}
      className={`${onDrag ? "handle" : "choice"} ${className}`}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={isPressed}
      aria-keyshortcuts={onDrag ? "Control+ArrowLeft Control+ArrowRight Control+ArrowUp Control+ArrowDown" : undefined}
      data-testid={testId}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (onDrag && event.ctrlKey && moveByKey(event, onDrag, key)) return;
        const done = { Enter: onChoose, " ": onChoose, Delete: onRemove, Backspace: onRemove }[event.key];
        if (!done) return;
        event.preventDefault();
        event.stopPropagation();
        done();
      }}
    >
      {children}
    </g>
  );
}
