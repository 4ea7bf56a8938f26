/** What each camera is set to by day and by night, and what it does when something happens. */
import { App } from "antd";
import { useState } from "react";
import { ask } from "../../core/port";
import type { Reacts, SettingsCard, SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { saveFile } from "../../keep/files";
import { useSite } from "../../keep/store";
import { changeOf } from "../../keep/things";
import { TextLine } from "../../ui/TextLine";
import { Told } from "../../ui/Told";
import { Button, Segmented } from "../../ui/controls";

type Which = "plates" | "all";

export function SettingsPanel({ site }: { site: SiteFile }) {
  const { value, settled } = useAnswer(site, { ask: "settings_cards" }, { by: "surveyor", keeps: true });
  const [wanted, setWanted] = useState<Which | null>(null);
  const { message } = App.useApp();
  const save = async (): Promise<void> => {
    try {
      const text = await ask(site, { ask: "settings_cards_csv" }, "surveyor");
      saveFile(new Blob([text], { type: "text/csv" }), site.name, "settings.csv");
    } catch (error) {
      void message.warning(error instanceof Error ? error.message : String(error));
    }
  };
  if (!value) return <p className="hint">Working …</p>;
  const plates = value.filter((card) => card.plates);
  const which: Which = wanted ?? (plates.length > 0 ? "plates" : "all");
  const cards = which === "plates" ? plates : value;
  return (
    <Told settled={settled} className="fit-settings" testId="settings-cards">
      <p className="fit-days-head no-print">
        <Segmented<Which>
          size="small"
          value={which}
          onChange={setWanted}
          options={[
            { value: "plates", label: `Plate cameras (${plates.length})` },
            { value: "all", label: `All (${value.length})` },
          ]}
        />
        <Button size="small" type="primary" onClick={() => window.print()}>
          Print
        </Button>
        <Button size="small" onClick={() => void save()}>
          Save as CSV
        </Button>
      </p>
      {cards.length === 0 && <p className="hint">There is no plate camera in this site.</p>}
      <div className="fit-settings-cards">
        {cards.map((card) => (
          <CardTold key={`${card.camera}/${card.head}`} card={card} site={site} />
        ))}
      </div>
    </Told>
  );
}

function CardTold({ card, site }: { card: SettingsCard; site: SiteFile }) {
  const several = (site.cameras.find(({ id }) => id === card.camera)?.heads.length ?? 1) > 1;
  return (
    <article className="fit-settings-card" aria-label={`Settings of ${card.name}${several ? ` ${card.head}` : ""}`}>
      <h3>
        {card.name} {several && card.head} <span className="fine">{card.model}</span>
      </h3>
      <table className="wire-rows fit-rows">
        <thead>
          <tr>
            <th>Set</th>
            <th>By day</th>
            <th>By night</th>
          </tr>
        </thead>
        <tbody>
          {card.lines.map((line) => (
            <tr key={line.name} title={line.why}>
              <td>
                {line.name} <span className="fine">{line.why}</span>
              </td>
              <td>{line.day}</td>
              <td>{line.night}</td>
            </tr>
          ))}
          {card.zones.map((zone) => (
            <tr key={zone.id}>
              <td>{zone.name}</td>
              <td colSpan={2}>{zone.counts ? "counts" : "left out"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ReactsFields card={card} site={site} />
      <ToItsKind card={card} site={site} />
    </article>
  );
}

/** What is set at one camera is set at all of its kind. */
function ToItsKind({ card, site }: { card: SettingsCard; site: SiteFile }) {
  const edit = useSite((state) => state.edit);
  const from = site.cameras.find(({ id }) => id === card.camera);
  const alike = site.cameras.filter(
    (one) => one.id !== card.camera && one.model.name === card.model && one.existing !== "goes",
  );
  if (!from || alike.length === 0) return null;
  const set = (): void =>
    edit(`Settings of ${from.name} to all of its kind`.slice(0, 200), (draft) => {
      for (const camera of draft.cameras) {
        if (!alike.some(({ id }) => id === camera.id)) continue;
        // Zones are of one picture: they stay where they are.
        camera.reacts = { ...from.reacts, zones: camera.reacts?.zones ?? [] };
        if (from.stream) camera.stream = { ...from.stream, mbps: camera.stream?.mbps ?? null };
        for (const head of camera.heads) {
          const exposure = from.heads[0]?.exposure;
          // Each is focused at its own distance.
          if (exposure) head.exposure = { ...exposure, focus_m: head.exposure?.focus_m ?? null };
        }
      }
    });
  return (
    <Button size="small" className="no-print" onClick={set}>
      To all of its kind: {alike.map(({ name }) => name).join(", ")}
    </Button>
  );
}

const FIELDS: { name: keyof Omit<Reacts, "zones">; word: string; hint: string }[] = [
  { name: "hours", word: "At which hours", hint: "18 to 7, all of Sunday" },
  { name: "tells", word: "Who is told what", hint: "the yard master, a picture" },
  { name: "alarm_in", word: "Alarm in", hint: "gate contact" },
  { name: "alarm_out", word: "Alarm out", hint: "lamp on the gable" },
  { name: "voice", word: "Voice and sound", hint: "off; ask local law first" },
];

function ReactsFields({ card, site }: { card: SettingsCard; site: SiteFile }) {
  const camera = site.cameras.find(({ id }) => id === card.camera);
  if (!camera) return null;
  const change = changeOf("camera", camera);
  return (
    <div className="fit-reacts">
      {FIELDS.map(({ name, word, hint }) => (
        <TextLine
          key={name}
          of={camera.id}
          label={`${word}, ${camera.name}`}
          word={word}
          placeholder={hint}
          value={camera.reacts?.[name] ?? ""}
          onChange={(text) =>
            change(word, (held) => {
              held.reacts = { ...held.reacts, [name]: text === "" ? null : text };
            })
          }
        />
      ))}
    </div>
  );
}
