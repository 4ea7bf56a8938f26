/**
 * Something on a drawing that is taken by hand: dragged with the pointer, chosen with a click or Enter. What
 * cannot be dragged lets the drawing beneath move.
 */
import { useDrag } from "@use-gesture/react";
import type { ReactNode } from "react";
import type { Point } from "../engine/types";

export interface Drag {
  /** Where the pointer is on the drawing, px. */
  at: Point;
  /** How far it is from where it was pressed, px. */
  moved: Point;
  first: boolean;
  /** One gesture is one way from press to release. */
  gesture: string;
}

interface Props {
  label: string;
  className?: string;
  pressed?: boolean;
  onChoose?(): void;
  onDrag?: ((drag: Drag) => void) | undefined;
  /** Delete or Backspace on it. */
  onRemove?(): void;
  children: ReactNode;
  testId?: string;
}

interface Held {
  box: DOMRect | undefined;
  gesture: string;
}

export function Handle({ label, className = "", pressed, onChoose, onDrag, onRemove, children, testId }: Props) {
  const bind = useDrag(
    ({ xy, movement, first, event, tap, currentTarget, startTime, memo }) => {
      if (onDrag) event.stopPropagation();
      if (tap) {
        onChoose?.();
        return undefined;
      }
      // One gesture keeps its name from press to release, whatever becomes of the label meanwhile.
      const held = (memo as Held | undefined) ?? {
        box: (currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect(), gesture: `${label}-${startTime}`,
      };
      if (held.box) onDrag?.({ at: [xy[0] - held.box.left, xy[1] - held.box.top], moved: movement, first, gesture: held.gesture });
      return held;
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  return (
    <g
      {...bind()} className={`${onDrag ? "handle" : "choice"} ${className}`} role="button" tabIndex={0} aria-label={label} aria-pressed={pressed} data-testid={testId}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
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
