/** Something on a drawing that is taken by hand: dragged with the pointer, chosen with a click or Enter. */
import { useDrag } from "@use-gesture/react";
import type { ReactNode } from "react";
import type { Point } from "../../engine/types";

interface Props {
  label: string;
  className?: string;
  pressed?: boolean;
  onChoose?(): void;
  /** `at` is the pointer on the drawing, px; one `gesture` is one way from press to release. */
  onDrag?(drag: { at: Point; first: boolean; gesture: string }): void;
  children: ReactNode;
  testId?: string;
}

interface Held {
  box: DOMRect | undefined;
  gesture: string;
}

export function Handle({ label, className = "", pressed, onChoose, onDrag, children, testId }: Props) {
  const bind = useDrag(
    ({ xy, first, event, tap, currentTarget, startTime, memo }) => {
      event.stopPropagation();
      if (tap) {
        onChoose?.();
        return undefined;
      }
      // One gesture keeps its name from press to release, whatever becomes of the label meanwhile.
      const held = (memo as Held | undefined) ?? {
        box: (currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect(), gesture: `${label}-${startTime}`,
      };
      if (held.box) onDrag?.({ at: [xy[0] - held.box.left, xy[1] - held.box.top], first, gesture: held.gesture });
      return held;
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  return (
    <g
      {...bind()} className={`handle ${className}`} role="button" tabIndex={0} aria-label={label} aria-pressed={pressed} data-testid={testId}
      onClick={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        event.stopPropagation();
        onChoose?.();
      }}
    >
      {children}
    </g>
  );
}
