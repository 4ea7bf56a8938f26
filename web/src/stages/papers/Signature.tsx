/** A field to sign in, with a finger, a pen or a mouse: strokes of points, both axes 0 to 1. */
import { useRef } from "react";

export type Strokes = [number, number][][];

interface Props {
  strokes: Strokes;
  onChange?(strokes: Strokes): void;
}

const neat = (value: number): number => Math.min(1, Math.max(0, Math.round(value * 1e4) / 1e4));

export function Signature({ strokes, onChange }: Props) {
  const field = useRef<SVGSVGElement>(null);
  const drawing = useRef(false);
  const at = (event: React.PointerEvent): [number, number] => {
    const box = field.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return [neat((event.clientX - box.left) / box.width), neat((event.clientY - box.top) / box.height)];
  };
  const line = (stroke: [number, number][]): string =>
    stroke.map(([x, y], place) => `${place === 0 ? "M" : "L"}${x * 300} ${y * 100}`).join("") +
    (stroke.length === 1 ? "h0.1" : "");
  return (
    <svg
      ref={field}
      className={onChange ? "signature" : "signature signature-shown"}
      viewBox="0 0 300 100"
      role="img"
      aria-label={strokes.length > 0 ? "Signature" : "Sign here"}
      data-testid="signature"
      {...(onChange && {
        onPointerDown: (event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = true;
          onChange([...strokes, [at(event)]]);
        },
        onPointerMove: (event) => {
          if (!drawing.current) return;
          const last = strokes.at(-1) ?? [];
          onChange([...strokes.slice(0, -1), [...last, at(event)]]);
        },
        onPointerUp: () => {
          drawing.current = false;
        },
        onPointerCancel: () => {
          drawing.current = false;
        },
      })}
    >
      <path d="M12 80H288" className="signature-line" />
      {strokes.map((stroke, place) => (
        <path key={place} d={line(stroke)} />
      ))}
    </svg>
  );
}
