/** What a plate camera is set to on the first evening: a card to print, or a table for a spreadsheet. */
import { App } from "antd";
import { useAnswer } from "../../../core/useAsked";
import { ask } from "../../../core/port";
import type { HeadRef, SiteFile, StartSettings } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { saveFile } from "../../../keep/files";
import { useSite } from "../../../keep/store";
import { headOf, targetOf } from "../../../model/lookups";
import { nameOf, refOfKey } from "../../../model/views";
import { siteAddress } from "../../../ui/address";
import { Button } from "../../../ui/controls";
import "../cards/cards.css";
import "./lane.css";

const today = (): string => new Date().toLocaleDateString("sv-SE");

export function SettingsScreen({ item }: { item: string | null }) {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const id = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const { message } = App.useApp();
  const key = item === null ? null : decodeURIComponent(item);
  const head: HeadRef | null = key === null ? null : refOfKey(key);
  const { value: cards, settled } = useAnswer(site, head && { ask: "start_settings", head, date: today(), units }, {
    rest: "live",
    by: "surveyor",
  });
  const csv = async (): Promise<void> => {
    if (!head) return;
    const text = await ask(site, { ask: "start_settings_csv", head, date: today(), units }, "surveyor");
    saveFile(new Blob([text], { type: "text/csv" }), `${nameOf(site, head)} settings sheet`, "csv");
  };
  const set = (card: StartSettings): void => {
    edit(`Set ${nameOf(site, { camera: card.camera, head: card.head })} as on its sheet`, (draft) => {
      const held = headOf(draft, card.camera, card.head);
      if (held) held.exposure = card.exposure;
    });
    void message.success("Shutter and focus are set as on the sheet.");
  };
  return (
    <main className="cards" aria-label="Settings sheet" data-ready={settled}>
      <div className="row no-print">
        <Button href={siteAddress(id)}>Back to the plan</Button>
        <Button disabled={!settled || !cards?.length} onClick={() => void csv()}>
          Save as CSV
        </Button>
        <Button type="primary" disabled={!settled || !cards?.length} onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {cards?.length === 0 && <p className="hint">This camera reads no moving plate yet.</p>}
      {head &&
        cards?.map((card) => (
          <article
            key={card.target}
            className="told aiming-card settings-sheet"
            data-settled={settled}
            aria-label={`Settings sheet of ${nameOf(site, head)}`}
          >
            <header>
              <h2>{nameOf(site, head)}</h2>
              <span>{targetOf(site, card.target)?.name}</span>
              <span className="fine">{site.name}</span>
              <Button size="small" className="no-print" onClick={() => set(card)}>
                Use these settings
              </Button>
            </header>
            <table>
              <tbody>
                {card.settings.map((setting) => (
                  <tr key={setting.name}>
                    <th scope="row">{setting.name}</th>
                    <td className="figure">{setting.value}</td>
                    <td className="fine">{setting.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <h3>May be misread</h3>
            {card.false_reads.length === 0 ? (
              <p className="fine">
                Nothing in its picture is marked as carrying writing. Mark lettering, signs and panes as obstacles.
              </p>
            ) : (
              <ul>
                {card.false_reads.map((name) => (
                  <li key={name}>{name}. Keep it out of the trigger and the size window.</li>
                ))}
              </ul>
            )}
            <p className="caution">
              Start values, computed: try them at dusk and by night with a plate that is known. Infrared light close to
              eyes (IEC 62471): keep away from the emitter. Reading plates is filming: ask local law first.
            </p>
          </article>
        ))}
    </main>
  );
}
