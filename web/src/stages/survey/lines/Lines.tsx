/** Finished cameras for the target, from the spot: the best first, each taken with one press. */
import { Button } from "antd";
import { useState } from "react";
import { ask } from "../../../core/port";
import type { FinishedLine, SiteFile, Spot, Target } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { takeOver } from "../../../keep/rebase";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { patched } from "../../../model/patch";
import { Told } from "../../../ui/Told";
import { VerdictMark } from "../../../ui/VerdictMark";
import { formatLength } from "../../../ui/length";
import { pixels } from "../../../ui/words";

/** So many models are remembered for a subject, or a kind of site. */
const REMEMBERED = 5;
/** So many lines are shown before somebody asks for more. */
const SHOWN = 3;

interface Props {
  site: SiteFile;
  target: Target;
  spot: Spot;
  near: boolean;
  taken(): void;
}

export function Lines({ site, target, spot, near, taken }: Props) {
  const { units, taken: remembered } = useSettings();
  const [all, setAll] = useState(false);
  const [fault, setFault] = useState("");
  const keys = [`${target.subject}/${target.task}`, `site/${site.brief?.kind ?? ""}`];
  const usual = [...new Set(keys.flatMap((key) => remembered[key] ?? []))];
  const wish = { target: target.id, spot: spot.id, near, usual };
  const { value, of, settled, refused } = useAnswer(
    site,
    { ask: "finished_lines", wish: { ...wish, like: null }, units },
    { rest: "live" },
  );
  const take = async (line: FinishedLine, of: SiteFile): Promise<void> => {
    const name = line.camera.model.name;
    if (!(await takeOver(`Take ${name} for ${target.name}`.slice(0, 200), of, patched(of, line.patch)))) {
      setFault("The site has moved on since; take it once more.");
      return;
    }
    const now = { ...useSettings.getState().taken };
    for (const key of keys)
      now[key] = [name, ...(now[key] ?? []).filter((other) => other !== name)].slice(0, REMEMBERED);
    useSettings.getState().set({ taken: now });
    taken();
  };
  const last = site.cameras.at(-1);
  const asLast = async (): Promise<void> => {
    const of = useSite.getState().open?.site;
    if (!of || !last) return;
    const found = await ask(of, { ask: "finished_lines", wish: { ...wish, like: last.id }, units });
    const [line] = found.lines;
    if (line) await take(line, of);
  };
  return (
    <Told className="finished-lines" label="Cameras that could hang there" settled={settled}>
      {last && (
        <Button size="large" block onClick={() => void asLast()}>
          Same as the last: {last.model.name}
        </Button>
      )}
      {refused && <p className="hint">{refused}</p>}
      {!value && !refused && <p className="hint">Working …</p>}
      {value && value.lines.length === 0 && <p className="hint">No camera of the catalogue fits there.</p>}
      <ol className="line-list">
        {(value?.lines ?? []).slice(0, all ? undefined : SHOWN).map((line) => (
          <OneLine key={line.camera.model.name} line={line} spot={spot} take={() => of && void take(line, of)} />
        ))}
      </ol>
      {value && value.lines.length > SHOWN && !all && (
        <Button size="large" block onClick={() => setAll(true)}>
          {value.lines.length - SHOWN} more
        </Button>
      )}
      {fault && (
        <p className="hint" role="alert">
          {fault}
        </p>
      )}
    </Told>
  );
}

function OneLine({ line, spot, take }: { line: FinishedLine; spot: Spot; take(): void }) {
  const units = useSettings((settings) => settings.units);
  const { model, heads, height_m } = line.camera;
  const focal = heads[0]?.focal_mm ?? model.lens.focal_min_mm;
  const zoom = model.lens.focal_max_mm > model.lens.focal_min_mm;
  return (
    <li className="one-line" data-testid="finished-line">
      <div>
        <h2>
          <VerdictMark verdict={line.verdict} /> {model.name}
        </h2>
        <p>
          {zoom ? (
            <>
              set to <strong className="figure">{focal.toFixed(1)} mm</strong>
            </>
          ) : (
            "fixed lens"
          )}
          , {formatLength(height_m, units, 1)} up
          {spot.back_box === true && `, ${model.back_box ?? "back box"}`}
          {typeof model.price === "number" && `, ${model.price.toFixed(0)}`}
        </p>
        <p className="fine">
          {line.verdict}
          {line.because !== null && `: ${line.because}`}
          {line.px_per_m !== null && `, ${pixels(line.px_per_m, units)}`}, good to{" "}
          {formatLength(line.holds_to_m, units, 1)}
          {line.lacks.length > 0 && `, ${line.lacks.join(", ")}`}
          {line.is_usual && ", usual"}
        </p>
      </div>
      <Button type="primary" size="large" aria-label={`Take ${model.name}`} onClick={take}>
        Take it
      </Button>
    </li>
  );
}
