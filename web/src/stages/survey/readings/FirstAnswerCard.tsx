/** The first answer, while still at the target: lens, picture, height, and what the thumb rule says. */
import { useAnswer } from "../../../core/useAsked";
import type { SiteFile, Spot, Target } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { formatLength } from "../../../ui/length";
import { Told } from "../../../ui/Told";
import { plainTask } from "../walk/plainTasks";

export function FirstAnswerCard({
  site,
  spot,
  target,
  slant,
}: {
  site: SiteFile;
  spot: Spot;
  target: Target;
  slant: number;
}) {
  const units = useSettings((settings) => settings.units);
  const { value: answer, settled } = useAnswer(
    site,
    {
      ask: "first_answer",
      outdoor: spot.outdoor ?? null,
      in_reach: spot.in_reach ?? null,
      slant_m: slant,
      spot_height_m: spot.height_m,
      target_height_m: target.height_m,
      task: target.task,
    },
    { rest: "live" },
  );
  return (
    <Told className="first-answer" label="First answer" settled={settled}>
      <h2>
        From {spot.name}, to {plainTask(target)}
      </h2>
      {!answer ? (
        <p className="hint">Working …</p>
      ) : (
        <dl className="facts">
          <div>
            <dt>Lens</dt>
            <dd>
              <strong className="figure">{answer.pocket.focal_mm.toFixed(1)} mm</strong> or longer on 4 MP
            </dd>
          </div>
          <div>
            <dt>Does it</dt>
            <dd>
              {answer.pocket.lenses
                .filter((lens) => lens.reaches)
                .slice(0, 3)
                .map((lens) => lens.model)
                .join(", ") || "no lens of the catalogue"}
            </dd>
          </div>
          <div>
            <dt>Picture there</dt>
            <dd>
              <strong className="figure">{formatLength(answer.pocket.scene_width_m, units, 1)}</strong> wide
            </dd>
          </div>
          <div>
            <dt>Height</dt>
            <dd>
              <strong className="figure">{formatLength(spot.height_m, units)}</strong>: seen{" "}
              {Math.abs(answer.depression_deg).toFixed(0)}° from {answer.depression_deg >= 0 ? "above" : "below"},{" "}
              {answer.from_above === "kept"
                ? "good for a face"
                : answer.from_above === "tight"
                  ? "steep for a face"
                  : "too steep for a face"}
            </dd>
          </div>
          <div>
            <dt>Nearest ground seen</dt>
            <dd className="figure">
              {answer.near_edge_m === null ? "none" : formatLength(answer.near_edge_m, units, 1)}
            </dd>
          </div>
          <div>
            <dt>Thumb rule</dt>
            <dd>
              past 60 ft zoom, nearer wide: says {answer.thumb_rule.says_zoom ? "zoom" : "wide"}.{" "}
              {answer.thumb_rule.agrees ? "Agrees" : "Wrong here"}: {answer.thumb_rule.why}.
            </dd>
          </div>
        </dl>
      )}
    </Told>
  );
}
