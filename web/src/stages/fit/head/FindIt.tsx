/** Landmarks found without clicks, by the edges of the picture: offered with how far it can be trusted, put down only when somebody says so. */
import { useState } from "react";
import { ask } from "../../../core/port";
import type { EdgeMatch, HeadRef, SiteFile } from "../../../core/types";
import { Button } from "../../../ui/controls";
import type { RealPicture } from "../../../pictures/realPicture";

/** How wide the picture is looked through, px. */
const WIDE = 480;
/** So many crosses are put down: those nearest to the middle. */
const MOST = 12;

export function FindIt({
  site,
  head,
  real,
  shape,
}: {
  site: SiteFile;
  head: HeadRef;
  real: RealPicture;
  /** The width and height of the head's picture, px. */
  shape: [number, number];
}) {
  const [found, setFound] = useState<{ of: Blob; told: EdgeMatch } | null>(null);
  const [busy, setBusy] = useState(false);
  const { held } = real;
  if (!held || held.corners) return null;
  const told = found?.of === held.blob ? found.told : null;
  const seek = async (): Promise<void> => {
    setBusy(true);
    real.say("");
    try {
      const grey = await greyOf(held.blob, shape);
      const answer = await ask(site, { ask: "edge_match", head, picture: { width: WIDE, grey } }, "surveyor");
      setFound({ of: held.blob, told: answer });
    } catch (error) {
      real.say(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="fit-find" data-testid="fit-find" data-trust={told?.trust ?? ""}>
      <Button size="small" loading={busy} onClick={() => void seek()}>
        Find it without clicks
      </Button>
      {told && (
        <>
          <span>
            {told.says}
            {told.trust === "none" ? "" : `, to about ${told.within_deg.toFixed(1)}°`}.
          </span>
          {told.marks.length > 0 && (
            <Button
              size="small"
              type="primary"
              onClick={() =>
                real.put({
                  ...held,
                  points: told.marks.slice(0, MOST).map(({ id, pixel: [u = 0, v = 0] }) => ({ id, u, v })),
                  foundTo: told.within_deg,
                })
              }
            >
              Put {Math.min(MOST, told.marks.length)} crosses there
            </Button>
          )}
        </>
      )}
    </div>
  );
}

/** A picture in grey, so wide. */
async function greyOf(blob: Blob, [width, height]: [number, number]): Promise<number[]> {
  const bitmap = await createImageBitmap(blob);
  const canvas = document.createElement("canvas");
  const tall = Math.round((WIDE * height) / width);
  [canvas.width, canvas.height] = [WIDE, tall];
  const context = canvas.getContext("2d");
  if (!context) throw new Error("this browser draws no picture");
  context.imageSmoothingQuality = "high";
  context.drawImage(bitmap, 0, 0, WIDE, tall);
  bitmap.close();
  const { data } = context.getImageData(0, 0, WIDE, tall);
  return Array.from({ length: WIDE * tall }, (_, at) =>
    Math.round(0.299 * (data[4 * at] ?? 0) + 0.587 * (data[4 * at + 1] ?? 0) + 0.114 * (data[4 * at + 2] ?? 0)),
  );
}
