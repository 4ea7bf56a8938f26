/** Why the place that was asked about is seen or not, head by head. */
import type { ReactNode } from "react";
import { useAnswer } from "../../../core/useAsked";
import { Told } from "../../../ui/Told";
import type { SeenFrom, SiteFile, Units, Why } from "../../../core/types";
import { cameraOf } from "../../../model/lookups";
import { nameOf } from "../../../model/views";
import { formatLength } from "../../../ui/length";
import { pixels } from "../../../ui/words";
import { useGroundView } from "./groundView";
import { Button } from "../../../ui/controls";

export function WhyCard({ site, units }: { site: SiteFile; units: Units }) {
  const { asked, need, height, set } = useGroundView();
  const { value, of, settled } = useAnswer(
    site,
    asked && { ask: "why", at: asked, height_m: height, need_px_per_m: need, units },
    { rest: "live" },
  );
  const seen = useAnswer(site, asked && { ask: "seen_from", at: asked, ground_m: 0, units }, { rest: "live" });
  if (!asked || !value || !of) return null;
  return (
    <Card why={value} site={of} units={units} settled={settled} close={() => set({ asked: null })}>
      {seen.value && seen.of && seen.value.cameras.length > 0 && (
        <SeenHere seen={seen.value} site={seen.of} settled={seen.settled} />
      )}
    </Card>
  );
}

const WORDS: Record<Why["heads"][number]["reason"], string> = {
  seen: "seen",
  in_turns: "by PTZ tour",
  too_dark: "too dark",
  too_far: "too far",
  behind: "behind",
  under: "under it",
  out_of_picture: "outside",
};

function Card({
  why,
  site,
  units,
  settled,
  close,
  children,
}: {
  why: Why;
  site: SiteFile;
  units: Units;
  settled: boolean;
  close(): void;
  children: ReactNode;
}) {
  const inside = why.inside ? site.obstacles?.find((o) => o.id === why.inside)?.name : null;
  return (
    <Told className="why-card" label="Why this place is seen or not" settled={settled}>
      <h3>
        {inside
          ? `Inside ${inside}: nobody can stand here`
          : why.cameras === 0
            ? `No camera sees this place at ${pixels(why.need_px_per_m, units)}`
            : `${why.cameras} ${why.cameras === 1 ? "camera sees" : "cameras see"} this place`}
      </h3>
      <p className="fine">
        {why.at.map((axis) => formatLength(axis, units)).join(" east, ")} north, {formatLength(why.height_m, units, 1)}{" "}
        up
      </p>
      {children}
      <ol>
        {why.heads.map((head) => (
          <li key={`${head.head.camera}/${head.head.head}/${head.head.view ?? ""}`}>
            <span className={`why-reason why-${head.reason}`}>{WORDS[head.reason]}</span>
            <span>
              <strong>{nameOf(site, head.head)}</strong> {head.says}
            </span>
          </li>
        ))}
      </ol>
      <Button size="small" onClick={close}>
        Done
      </Button>
    </Told>
  );
}

/** Which cameras somebody who stands there sees himself. */
function SeenHere({ seen, site, settled }: { seen: SeenFrom; site: SiteFile; settled: boolean }) {
  const count = seen.cameras.filter((camera) => camera.seen).length;
  return (
    <Told testId="seen-here" settled={settled}>
      <details>
        <summary>
          {count === 0
            ? "Who stands here sees no camera"
            : `Who stands here sees ${count} of ${seen.cameras.length} cameras`}
        </summary>
        <ol>
          {seen.cameras.map((camera) => (
            <li key={camera.camera}>
              <span className={`why-reason why-${camera.seen ? "seen" : "behind"}`}>
                {camera.seen ? "seen" : "not seen"}
              </span>
              <span>
                <strong>{cameraOf(site, camera.camera)?.name ?? camera.camera}</strong> {camera.says}
              </span>
            </li>
          ))}
        </ol>
      </details>
    </Told>
  );
}
