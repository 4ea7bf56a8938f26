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

export function Handle({ label, className = "", pressed, onChoose, onDrag, children, testId }: Props) {
  const bind = useDrag(
    ({ xy, first, event, tap, currentTarget, startTime, memo }) => {
      event.stopPropagation();
      if (tap) {
        onChoose?.();
        return undefined;
      }
      const box = (memo as DOMRect | undefined) ?? (currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
      if (box) {
        const at: Point = [xy[0] - box.left, xy[1] - box.top];
        onDrag?.({ at, first, gesture: `${label}-${startTime}` });
      }
      return box;
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
