/** The four corners of a monitor in a photo: clicked one after the other, then the photo is straightened. */
import { useState } from "react";
import { ask } from "../core/port";
import { useSite } from "../keep/store";
import { Button } from "../ui/controls";
import type { RealPicture } from "./realPicture";

const WORDS = ["top left", "top right", "bottom right", "bottom left"] as const;

export function Corners({
  real,
  url,
  sensor,
  wrongShape,
  onDone,
}: {
  real: RealPicture;
  url: string;
  sensor: { width_px: number; height_px: number };
  /** Whether the picture cannot be the head's own as it is. */
  wrongShape: boolean;
  onDone(): void;
}) {
  const [corners, setCorners] = useState<[number, number][]>([]);
  const [fault, setFault] = useState("");
  const { held } = real;
  if (!held) return null;
  const next = WORDS[corners.length];
  const click = async (event: React.MouseEvent<HTMLDivElement>): Promise<void> => {
    const box = event.currentTarget.getBoundingClientRect();
    const at: [number, number] = [
      ((event.clientX - box.left) / box.width) * held.width,
      ((event.clientY - box.top) / box.height) * held.height,
    ];
    const now = [...corners, at];
    setFault("");
    setCorners(now);
    if (now.length < WORDS.length) return;
    const site = useSite.getState().open?.site;
    if (!site) return;
    try {
      await ask(site, { ask: "straighten", corners: now, size: [sensor.width_px, sensor.height_px] }, "surveyor");
      real.put({ ...held, corners: now, points: [] });
      onDone();
    } catch (error) {
      setCorners([]);
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-label="Corners of the monitor" className="real-pictures">
      {wrongShape && (
        <p className="notice" data-testid="fit-wrong-shape">
          This picture, {held.width} × {held.height} px, is not of the shape of this head’s, {sensor.width_px} ×{" "}
          {sensor.height_px} px.{" "}
          {held.height > held.width !== sensor.height_px > sensor.width_px
            ? "It lies on its side: is the corridor setting as planned? "
            : ""}
          A photo of a monitor is straightened by its corners. Else take another picture.
        </p>
      )}
      <p className="real-click-it">
        Click the <strong>{next ?? "…"}</strong> corner of the picture on the monitor.
      </p>
      <div
        className="real-frame"
        style={{ aspectRatio: `${held.width} / ${held.height}` }}
        data-testid="fit-corners"
        onClick={(event) => void click(event)}
      >
        <img src={url} alt="The photo of the monitor" className="real-shown" draggable={false} />
        <svg className="real-crosses" viewBox={`0 0 ${held.width} ${held.height}`} aria-hidden>
          {corners.map(([x, y]) => (
            <circle key={`${x} ${y}`} cx={x} cy={y} r={held.width / 90} className="real-corner" />
          ))}
        </svg>
      </div>
      {fault && (
        <p className="notice notice-bad" role="alert">
          {fault}
        </p>
      )}
      <p className="real-options">
        {corners.length > 0 && (
          <Button size="small" onClick={() => setCorners([])}>
            Begin again
          </Button>
        )}
        {!wrongShape && (
          <Button
            size="small"
            onClick={() => {
              if (held.corners) real.put({ ...held, corners: null, points: [] });
              onDone();
            }}
          >
            It is no photo of a monitor
          </Button>
        )}
      </p>
    </section>
  );
}
