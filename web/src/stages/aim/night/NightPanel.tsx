/** The night: whether the site is judged by it, what each promise gets of light, what washes the picture in hand out, and what mends it. */
import type { HeadRef, LightTold, SiteFile, Units } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { keyOf, nameOf } from "../../../model/views";
import { formatLength } from "../../../ui/length";
import { lux, share, times } from "../../../ui/words";
import { Told } from "../../../ui/Told";
import { Mending } from "../Mending";
import { usePictureLook } from "../picture/pictureView";
import { useLight } from "./useLight";
import { Button, Switch } from "../../../ui/controls";
import "./night.css";

export function NightPanel({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const { head, target } = useInHand();
  const place = useInHand((state) => state.place);
  const edit = useSite((state) => state.edit);
  const { light, mends } = useLight(site, head, units);
  const judged = site.conditions?.night ?? false;
  const judge = (night: boolean): void => {
    edit(night ? "Judge it by night" : "Judge it by day", (draft) => {
      draft.conditions = { ...draft.conditions, night };
    });
    usePictureLook.getState().set({ night });
  };
  return (
    <div className="night-panel" data-testid="night-panel" data-settled={light.settled && (!head || mends.settled)}>
      <div className="night-row">
        <label className="switch-line">
          <Switch size="small" checked={judged} onChange={judge} /> Judge the promises by night
        </label>
        <Button size="small" onClick={() => place("lamp")}>
          Add a lamp
        </Button>
        <span className="fine">
          {judged ? "The coverage map shows what is seen and lit." : "By day the light is not judged."}
        </span>
      </div>
      {light.value ? (
        <div className="night-columns">
          {head && (
            <Told settled={light.settled}>
              <Picture light={light.value} site={site} head={head} units={units} />
            </Told>
          )}
          {head && mends.value && mends.of && (
            <Told settled={mends.settled}>
              <Mending
                mends={mends.value}
                site={mends.of}
                left={(washed) =>
                  washed >= 1
                    ? "all of it spoilt"
                    : washed === 0
                      ? "nothing overexposed"
                      : `${share(washed)} overexposed`
                }
                label="Ways that mend the night picture"
              />
            </Told>
          )}
          <Told settled={light.settled}>
            <Targets light={light.value} site={site} head={head} inHand={target} units={units} />
          </Told>
        </div>
      ) : (
        <p className="hint">{light.refused ?? "Working …"}</p>
      )}
    </div>
  );
}

/** What light does to the picture of the head in hand. */
function Picture({ light, site, head, units }: { light: LightTold; site: SiteFile; head: HeadRef; units: Units }) {
  const name = (id: string | null): string =>
    id === null ? "the ground" : (site.obstacles?.find((held) => held.id === id)?.name ?? id);
  const lampName = (id: string): string => site.lamps?.find((lamp) => lamp.id === id)?.name ?? id;
  const washed = light.washed.find((held) => keyOf(held) === keyOf(head));
  const lamps = light.spoiled.filter((held) => keyOf(held) === keyOf(head));
  const target = washed && site.targets.find((held) => held.id === washed.target)?.name;
  return (
    <section className="night-part" aria-label="What light does to this picture">
      <h3>{nameOf(site, head)} by night</h3>
      {!washed && (
        <p className="fine">It has no infrared light, or is best for no promise: there is nothing to expose for.</p>
      )}
      {washed && washed.by.length === 0 && !washed.bubble && (
        <p className="fine">Exposed for {target}, nothing in it is overexposed.</p>
      )}
      {washed?.bubble && (
        <p className="caution">
          Its dome cover hangs under {name(washed.bubble)}, less than a metre off in the beam: the light comes back into
          the dome cover and veils all of the picture.
        </p>
      )}
      {washed && washed.by.length > 0 && (
        <>
          <p>
            <strong className="figure">{share(washed.share)}</strong> of it is overexposed when the exposure is right
            for {target}:
          </p>
          <ul>
            {washed.by.map((by) => (
              <li key={by.obstacle ?? ""}>
                {name(by.obstacle)}, {formatLength(by.nearest_m, units, 1)} away,{" "}
                <span className="figure">{times(by.stops)}</span> too bright, {share(by.share)} of the picture
              </li>
            ))}
          </ul>
        </>
      )}
      {lamps.map((held) => (
        <p key={held.lamp} className="caution">
          {lampName(held.lamp)}{" "}
          {held.off_deg === 0 ? "shines into the picture" : `stands ${held.off_deg.toFixed(0)}° beside the picture`}: it
          may spoil it.
        </p>
      ))}
      {light.buried.map((held) => (
        <p key={held.lamp} className="caution">
          {lampName(held.lamp)} is drawn inside {name(held.inside)}: its light goes nowhere.
        </p>
      ))}
    </section>
  );
}

/** The light that each promise gets. */
function Targets({
  light,
  site,
  head,
  inHand,
  units,
}: {
  light: LightTold;
  site: SiteFile;
  head: HeadRef | null;
  inHand: string | null;
  units: Units;
}) {
  return (
    <section className="night-part" aria-label="Light at the promises">
      <h3>Light at the promises</h3>
      <table className="night-table">
        <thead>
          <tr>
            <th scope="col">Promise</th>
            <th scope="col">Lamps</th>
            <th scope="col">Infrared{head ? ` of ${nameOf(site, head)}` : ""}</th>
          </tr>
        </thead>
        <tbody>
          {site.targets.map((target) => {
            const lit = light.targets.find((held) => held.target === target.id);
            const own = light.infrared.find(
              (held) => held.target === target.id && held.camera === head?.camera && held.head === head.head,
            );
            return (
              <tr key={target.id} className={target.id === inHand ? "night-in-hand" : undefined}>
                <th scope="row">{target.name}</th>
                <td className="figure">{lit ? lux(lit.lux_upright, units) : "–"}</td>
                <td className="figure">
                  {own?.stops === undefined || own.stops === null ? "–" : `${times(own.stops)} its need`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
