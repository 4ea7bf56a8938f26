/** The store: what the days take, what the disks hold, and what gives where they do not. */
import { App, Slider } from "antd";
import { useState } from "react";
import type { Cut, SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { takeOver } from "../../keep/rebase";
import { useSite } from "../../keep/store";
import { targetOf } from "../../model/lookups";
import { patched } from "../../model/patch";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { gigabytes, mbps } from "./figures";
import { useShown } from "./wired";

const MOST_DAYS = 90;

export function StorePanel({ site }: { site: SiteFile }) {
  const shown = useShown();
  const stated = site.brief?.retention_days ?? null;
  const [days, setDays] = useState(stated ?? 14);
  const [of, setOf] = useState(stated);
  // Somebody changed the brief meanwhile: that is what is promised now.
  if (of !== stated) {
    setOf(stated);
    if (stated !== null) setDays(stated);
  }
  const { value, settled } = useAnswer(site, { ask: "store_cuts", days }, { by: "surveyor", keeps: true });
  const edit = useSite((state) => state.edit);
  const store = value?.store;
  const promise = (): void =>
    edit(`Promise ${days} days`, (draft) => {
      draft.brief = { ...draft.brief, retention_days: days };
    });
  return (
    <div className="wire-store">
      <div className="wire-days">
        <label>
          Days of recording
          <Slider
            min={1}
            max={MOST_DAYS}
            value={days}
            onChange={setDays}
            ariaLabelForHandle="Days of recording"
            tooltip={{ open: false }}
          />
        </label>
        <span className="figure">{days} days</span>
        <Button size="small" type="primary" disabled={days === stated} onClick={promise}>
          Promise {days} days
        </Button>
        {stated !== null && days !== stated && <span className="fine">Promised now: {stated}</span>}
      </div>
      {store && (
        <Told settled={settled} className="wire-store-told" testId="store-told">
          <p>
            <VerdictMark verdict={store.verdict} /> {gigabytes(store.gb_per_day)} a day
            {store.gb !== null && `, ${gigabytes(store.gb)} for ${store.days} days`}
            {store.disk_gb === null
              ? ". No disk is stated: choose the recorder and say what it has."
              : `; disks of ${gigabytes(store.disk_gb)} hold ${store.holds_days?.toFixed(1) ?? "all"} days.`}
            {store.verdict === "tight" && " They fill sooner where bit rates are as high as their start values may be."}
          </p>
          {value.cuts.length > 0 && (
            <>
              <h3>What gives</h3>
              <ul className="wire-cuts">
                {value.cuts.map((cut) => (
                  <CutRow key={cut.kind} site={site} cut={cut} settled={settled} />
                ))}
              </ul>
            </>
          )}
        </Told>
      )}
      <details>
        <summary>Bit rates, camera by camera</summary>
        <table className="wire-rates">
          <thead>
            <tr>
              <th>Camera</th>
              <th>Sends</th>
              <th>At most</th>
              <th>From</th>
            </tr>
          </thead>
          <tbody>
            {[...shown.runs.values()].map((run) => {
              const camera = site.cameras.find(({ id }) => id === run.camera);
              return (
                <tr key={run.camera}>
                  <td>{camera?.name ?? run.camera}</td>
                  <td className="figure">{mbps(run.mbps)}</td>
                  <td className="figure">{mbps(run.most_mbps)}</td>
                  <td>{camera?.stream?.mbps == null ? "start value" : "measured"}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </details>
    </div>
  );
}

function CutRow({ site, cut, settled }: { site: SiteFile; cut: Cut; settled: boolean }) {
  const { message } = App.useApp();
  const apply = async (): Promise<void> => {
    if (!settled || !(await takeOver(cut.says.slice(0, 200), site, patched(site, cut.patch))))
      void message.warning("The site has moved on since this was found; it is being looked for anew.");
  };
  return (
    <li className="wire-cut">
      <VerdictMark verdict={cut.verdict} size={15} />
      <div>
        <span>{cut.says}</span> <span className="fine figure">{gigabytes(cut.gb_per_day)} a day</span>
        {cut.falls.length > 0 && (
          <ul className="effects">
            {cut.falls.map((fallen) => (
              <li key={fallen.target}>
                <VerdictMark verdict={fallen.before} size={13} /> → <VerdictMark verdict={fallen.after} size={13} />{" "}
                {targetOf(site, fallen.target)?.name ?? fallen.target}
              </li>
            ))}
          </ul>
        )}
        {cut.falls.length === 0 && (cut.kind === "frames" || cut.kind === "resolution") && (
          <span className="fine"> No promise falls.</span>
        )}
      </div>
      {cut.patch.length > 0 && (
        <Button size="small" disabled={!settled} aria-label={`Do it: ${cut.says}`} onClick={() => void apply()}>
          Do it
        </Button>
      )}
    </li>
  );
}
