/** The real picture over the expected one: a click puts the landmark in hand down. */
import { useMemo } from "react";
import type { Camera, CameraHead, Clickable, SiteFile } from "../../../core/types";
import { usePicture } from "../../../core/usePicture";
import { computedWish } from "../../../pictures/computed";
import { Cross, Overlay } from "../../../pictures/Overlay";
import type { RealPicture } from "../../../pictures/realPicture";
import { Pixels } from "../../../ui/Pixels";

/** How wide the expected picture is worked out, px. */
const WIDE = 640;

export function Over({
  site,
  camera,
  head,
  real,
  marks,
  inHand,
  onClick,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  real: RealPicture;
  marks: Clickable[];
  inHand: string | null;
  onClick(u: number, v: number): void;
}) {
  const designed = useMemo(() => asDesigned(site, camera.id, head.id), [site, camera.id, head.id]);
  const ref = useMemo(() => ({ camera: camera.id, head: head.id }), [camera.id, head.id]);
  const { shown } = usePicture(designed, ref, computedWish(WIDE), "view", "rest");
  const { held, url } = real;
  const mark = marks.find((one) => one.id === inHand);
  const clicked = held?.points.find((point) => point.id === mark?.id);
  const at: [number, number] | undefined = clicked
    ? [clicked.u, clicked.v]
    : (mark?.pixel as [number, number] | undefined);
  return (
    <section aria-label="Pictures" className="real-pictures">
      <Overlay
        site={site}
        size={camera.model.sensor}
        under={shown && <Pixels shown={shown} className="real-expected" label="What it must show, computed" />}
        real={url && held ? { url, width: held.width, height: held.height, corners: held.corners } : null}
        coming={real.coming}
        testId="fit-frame"
        // Nearer, the place where it must be comes into the middle.
        middle={mark && at ? { id: mark.id, at } : null}
        marks={(scale) => (
          <>
            {held?.points.map(({ id, u, v }) => (
              <Cross key={id} at={[u * scale, v * scale]} inHand={id === inHand} />
            ))}
            {mark?.pixel && !clicked && (
              <circle
                cx={(mark.pixel[0] ?? 0) * scale}
                cy={(mark.pixel[1] ?? 0) * scale}
                r={13}
                className="real-must-be"
              />
            )}
          </>
        )}
        onClick={onClick}
      />
      {real.coming && (
        <p className="real-click-it" role="status">
          Another picture is on its way …
        </p>
      )}
      {mark && held && !real.coming && (
        <p className="real-click-it">
          Click: <strong>{mark.says}</strong>
          {mark.pixel ? ". The ring shows where it must be." : ", behind the picture by the plan."}
        </p>
      )}
    </section>
  );
}

/** The site with a head as it was designed, whatever was taken over since. */
function asDesigned(site: SiteFile, camera: string, head: string): SiteFile {
  const built = site.cameras.find(({ id }) => id === camera)?.heads.find(({ id }) => id === head)?.as_built;
  if (!built) return site;
  return {
    ...site,
    cameras: site.cameras.map((held) =>
      held.id === camera
        ? {
            ...held,
            heads: held.heads.map((one) => {
              if (one.id !== head) return one;
              return { ...one, lens: null, ...built.designed };
            }),
          }
        : held,
    ),
  };
}
