/** The loupe on the landmark in hand, and steps of half a pixel; it can be drawn to the strongest corner nearby. */
import { useEffect, useRef, useState } from "react";
import { ask } from "../../../core/port";
import type { Camera } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { Button } from "../../../ui/controls";
import type { RealPicture } from "../../../pictures/realPicture";

/** The loupe shows so many pixels of the picture to either side, this many times as large. */
const AROUND = 12;
const TIMES = 6;
/** A corner is sought so far to either side, px of the picture. */
const SOUGHT = 12;
const STEPS: { word: string; label: string; by: [number, number] }[] = [
  { word: "←", label: "left", by: [-0.5, 0] },
  { word: "→", label: "right", by: [0.5, 0] },
  { word: "↑", label: "up", by: [0, -0.5] },
  { word: "↓", label: "down", by: [0, 0.5] },
];

export function Nudge({
  real,
  id,
  sensor,
  says,
  next,
  onNext,
}: {
  real: RealPicture;
  id: string | null;
  sensor: Camera["model"]["sensor"];
  says: string | null;
  /** The landmark that comes next. */
  next: string | null;
  onNext(id: string): void;
}) {
  const { held, url } = real;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const [fault, setFault] = useState("");
  const point = held?.points.find((one) => one.id === id);
  useEffect(() => {
    if (!url) return;
    const loaded = new Image();
    loaded.onload = () => setImage(loaded);
    loaded.src = url;
  }, [url]);
  const scale = held ? held.width / sensor.width_px : 1;
  const plain = held?.corners === null;
  const [x, y] = [(point?.u ?? 0) * scale, (point?.v ?? 0) * scale];
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !image || !point || !plain) return;
    const side = 2 * AROUND * TIMES;
    context.imageSmoothingEnabled = false;
    context.fillStyle = "#888";
    context.fillRect(0, 0, side, side);
    context.drawImage(image, x - AROUND, y - AROUND, 2 * AROUND, 2 * AROUND, 0, 0, side, side);
  }, [image, x, y, point, plain]);
  if (!held || !point) return null;
  const put = (u: number, v: number): void =>
    real.put({ ...held, points: held.points.map((one) => (one.id === id ? { ...one, u, v } : one)) });
  const toCorner = async (): Promise<void> => {
    setFault("");
    const site = useSite.getState().open?.site;
    if (!image || !site) return;
    const side = 2 * SOUGHT + 1;
    const piece = document.createElement("canvas");
    [piece.width, piece.height] = [side, side];
    const context = piece.getContext("2d");
    if (!context) return;
    const [left, top] = [Math.round(x) - SOUGHT, Math.round(y) - SOUGHT];
    context.drawImage(image, left, top, side, side, 0, 0, side, side);
    const { data } = context.getImageData(0, 0, side, side);
    const grey = Array.from({ length: side * side }, (_, at) =>
      Math.round(0.299 * (data[4 * at] ?? 0) + 0.587 * (data[4 * at + 1] ?? 0) + 0.114 * (data[4 * at + 2] ?? 0)),
    );
    const found = await ask(site, { ask: "strongest_corner", piece: { width: side, grey } }, "surveyor");
    if (!found) setFault("There is no corner near it.");
    else put((left + found[0]) / scale, (top + found[1]) / scale);
  };
  return (
    <div className="fit-nudge" role="group" aria-label={`Place of ${says ?? "the landmark"}`}>
      {plain && (
        <span className="fit-loupe">
          <canvas ref={canvas} width={2 * AROUND * TIMES} height={2 * AROUND * TIMES} role="img" aria-label="Loupe" />
          <i aria-hidden />
        </span>
      )}
      <div className="fit-nudge-steps">
        {STEPS.map(({ word, label, by: [right, down] }) => (
          <Button
            key={label}
            size="small"
            aria-label={`Half a pixel ${label}`}
            onClick={() => put(point.u + right / scale, point.v + down / scale)}
          >
            {word}
          </Button>
        ))}
        {plain && (
          <Button size="small" onClick={() => void toCorner()}>
            To the corner
          </Button>
        )}
        <span className="figure" data-testid="fit-pixel">
          {point.u.toFixed(1)}, {point.v.toFixed(1)} px
        </span>
        {next && (
          <Button size="small" type="primary" onClick={() => onNext(next)}>
            Next landmark
          </Button>
        )}
        {fault && <span className="fine">{fault}</span>}
      </div>
    </div>
  );
}
