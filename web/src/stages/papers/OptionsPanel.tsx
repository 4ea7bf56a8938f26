/** Options of the design side by side, in the client's words: what each keeps, what falls away, what it costs. */
import { App, Checkbox } from "antd";
import { useState } from "react";
import type { PricedOption, SiteFile } from "../../core/types";
import { useOffer } from "../../core/useOffer";
import { takeOver } from "../../keep/rebase";
import { useSite } from "../../keep/store";
import { patched } from "../../model/patch";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { freshId } from "../../model/points";
import { Costs } from "./Costs";
import { cameras, nameOfCamera } from "./words";

/** So many options a site holds. */
const MOST_OPTIONS = 12;

export function OptionsPanel({ site }: { site: SiteFile }) {
  const { value, settled, refused } = useOffer(site, { ask: "options" });
  if (site.cameras.length === 0)
    return <p className="hint">There are no cameras yet: they come on the stage Aim, or from Fewest cameras.</p>;
  return (
    <>
      {refused && (
        <p role="alert" className="verdict-word-broken">
          {refused}
        </p>
      )}
      {!value && !refused && <p className="hint">Working …</p>}
      {value && (
        <Told settled={settled} testId="options">
          <ul className="papers-options">
            {value.map((option) => (
              <Option key={option.kind} site={site} option={option} settled={settled} />
            ))}
            <OwnChoice site={site} />
          </ul>
        </Told>
      )}
      <p className="fine">
        Which promises a set of cameras keeps is judged at every place of each of them. Gear that is there already costs
        nothing. What stands here is by the verdicts of Aim, {site.conditions?.night ? "by night" : "by day"}.
      </p>
    </>
  );
}

function OwnChoice({ site }: { site: SiteFile }) {
  const all = site.cameras.filter((camera) => camera.existing !== "goes").map((camera) => camera.id);
  const [left, setLeft] = useState<string[]>([]);
  const chosen = all.filter((id) => !left.includes(id));
  const { value, settled } = useOffer(site, { ask: "own_option", cameras: chosen });
  return (
    <li className="papers-option" data-testid="option-own">
      <h3>Your own choice</h3>
      <div className="papers-choice">
        {all.map((id) => (
          <Checkbox
            key={id}
            checked={!left.includes(id)}
            onChange={({ target }) =>
              setLeft((held) => (target.checked ? held.filter((one) => one !== id) : [...held, id]))
            }
          >
            {nameOfCamera(site, id)}
          </Checkbox>
        ))}
      </div>
      {value && <OptionFacts site={site} option={value} settled={settled} />}
    </li>
  );
}

function Option({ site, option, settled }: { site: SiteFile; option: PricedOption; settled: boolean }) {
  return (
    <li className="papers-option" data-testid={`option-${option.kind}`}>
      <h3>{option.name}</h3>
      <OptionFacts site={site} option={option} settled={settled} />
    </li>
  );
}

function OptionFacts({ site, option, settled }: { site: SiteFile; option: PricedOption; settled: boolean }) {
  const { message } = App.useApp();
  const full = option.left_out.length === 0;
  const take = async (): Promise<void> => {
    if (!(await takeOver(`Take the option: ${option.name}`, site, patched(site, option.patch))))
      void message.warning("The site has moved on since this was found. Look at it again.");
  };
  const keep = (): void => {
    useSite.getState().edit(`Keep as an option: ${option.name}`, (draft) => {
      const kept = draft.cameras.filter((camera) => option.cameras.includes(camera.id));
      const variants = (draft.variants ??= []);
      variants.push({
        id: freshId("v", variants),
        name: option.name,
        cameras: JSON.parse(JSON.stringify(kept)) as typeof kept,
      });
    });
    void message.info("Kept under Options on the stage Aim.");
  };
  return (
    <>
      <Costs bill={option.bill} />
      <p>
        {cameras(option.cameras.length)}: {option.cameras.map((id) => nameOfCamera(site, id)).join(", ") || "none"}
      </p>
      <p className="papers-counts">
        <span>
          <VerdictMark verdict="kept" size={14} /> {option.kept} kept
        </span>
        <span>
          <VerdictMark verdict="tight" size={14} /> {option.tight} tight
        </span>
        <span>
          <VerdictMark verdict="broken" size={14} /> {option.broken} not kept
        </span>
      </p>
      {option.falls_away.length === 0 ? (
        <p>Nothing falls away.</p>
      ) : (
        <ul className="papers-falls">
          {option.falls_away.map((falls) => (
            <li key={falls.target}>{falls.says}</li>
          ))}
        </ul>
      )}
      {option.bill.unknown.length > 0 && (
        <p className="fine">
          {option.bill.unknown.length} of {option.bill.lines.length} lines have no price: the list under Prices names
          them.
        </p>
      )}
      {!option.proved && <p className="fine">At most {(option.gap * 100).toFixed(0)} % from the best.</p>}
      <div className="row">
        <Button size="small" type="primary" disabled={full || !settled} onClick={() => void take()}>
          Take it
        </Button>
        <Button size="small" disabled={full || !settled || (site.variants ?? []).length >= MOST_OPTIONS} onClick={keep}>
          Keep as an option
        </Button>
      </div>
    </>
  );
}
