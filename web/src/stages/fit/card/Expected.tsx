/** The picture that a head must have, with its landmarks in per cent. */
import { useMemo } from "react";
import type { Camera, CameraHead, SiteFile } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { usePicture } from "../../../core/usePicture";
import { useSite } from "../../../keep/store";
import { refOf } from "../../../model/views";
import { computedWish } from "../../../pictures/computed";
import { Pixels } from "../../../ui/Pixels";
import { Told } from "../../../ui/Told";
import { fitAddress } from "../../../ui/address";

/** How wide it is worked out, px. */
const WIDE = 360;

export function Expected({ site, camera, head }: { site: SiteFile; camera: Camera; head: CameraHead }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const ref = useMemo(() => refOf(camera, head), [camera, head]);
  const { shown } = usePicture(site, ref, computedWish(WIDE), "view", "rest");
  const card = useAnswer(site, { ask: "card", head: ref }, { by: "surveyor" });
  const several = camera.heads.length > 1;
  return (
    <section className="fit-expected" aria-label={`Expected picture${several ? ` of ${head.id}` : ""}`}>
      <h3>
        What it must show {several && head.id}{" "}
        <span className="figure">
          {head.pan_deg.toFixed(0)}° · {head.tilt_deg.toFixed(0)}° down
        </span>
      </h3>
      {shown && <Pixels shown={shown} className="fit-pixels" label={`What ${camera.name} must show, computed`} />}
      <Told settled={card.settled}>
        <ol className="fit-landmarks">
          {card.value?.landmarks.map((mark) => (
            <li key={mark.says}>
              {mark.says}{" "}
              <span className="figure">
                {mark.at_percent[0]?.toFixed(0)} % from the left, {mark.at_percent[1]?.toFixed(0)} % from the top
              </span>
            </li>
          ))}
        </ol>
      </Told>
      <a href={fitAddress(id, camera.id, head.id)} className="no-print">
        Aim it by its picture
      </a>
    </section>
  );
}
