/** A head's real picture in hand: where it comes from, straightened where it shows a monitor, over what lies under it; a click says where. */
import { type ReactNode, useState } from "react";
import type { Camera, CameraHead, SiteFile } from "../core/types";
import { Button } from "../ui/controls";
import { Corners } from "./Corners";
import { Overlay } from "./Overlay";
import { Sources } from "./Sources";
import type { RealPicture } from "./realPicture";
import { isOfShape } from "./shape";

export function HeadPicture({
  site,
  camera,
  head,
  real,
  under,
  standIn,
  testId,
  marks,
  onClick,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  real: RealPicture;
  /** What lies under it. */
  under: ReactNode;
  /** Whether the stand-in can give it. */
  standIn: boolean;
  testId: string;
  marks(scale: number): ReactNode;
  onClick(u: number, v: number): void;
}) {
  const [monitor, setMonitor] = useState(false);
  const { held, url } = real;
  const sensor = camera.model.sensor;
  const fits = held !== null && isOfShape(held, sensor);
  return (
    <div className="real-in-hand">
      <Sources site={site} camera={camera} head={head} real={real} standIn={standIn} turns={false} />
      {real.fault && (
        <p className="notice notice-bad" role="alert">
          {real.fault}
        </p>
      )}
      {held && url && (!fits || monitor) ? (
        <Corners key={url} real={real} url={url} sensor={sensor} wrongShape={!fits} onDone={() => setMonitor(false)} />
      ) : (
        <Overlay
          site={site}
          size={sensor}
          under={under}
          real={url && held ? { url, width: held.width, height: held.height, corners: held.corners } : null}
          coming={real.coming}
          testId={testId}
          marks={marks}
          onClick={onClick}
        />
      )}
      {held && fits && !monitor && (
        <Button size="small" type="text" onClick={() => setMonitor(true)}>
          It is a photo of a monitor
        </Button>
      )}
    </div>
  );
}
