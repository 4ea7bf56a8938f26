/** A model in lines, and what its lens then does, at once. */
import { useEffect, useState } from "react";
import { Refused } from "../core/errors";
import { askAnywhere } from "../core/port";
import type { LensFacts, Model } from "../core/types";
import { useSettings } from "../keep/settings";
import { formatLength } from "../ui/length";
import { shortPixels } from "../ui/words";
import { Fields } from "./Fields";
import { FormFrame } from "./FormFrame";
import { FIELDS, modelOf } from "./draft";
import type { Draft } from "./typed";

interface Props {
  draft: Draft;
  /** Names that others go by. */
  taken: Set<string>;
  save(model: Model): void;
  remove?(): void;
  close(): void;
}

export function ModelForm({ draft: first, taken, save, remove, close }: Props) {
  const [draft, setDraft] = useState(first);
  const made = modelOf(draft);
  const model = "model" in made ? made.model : null;
  const { facts, fault } = useLens(model);
  const twice = model !== null && taken.has(model.name);
  const wrong = "wrong" in made ? made.wrong : twice ? "another camera goes by this name" : fault;
  return (
    <FormFrame
      label="Camera"
      wrong={wrong}
      keeps={model !== null && wrong === ""}
      keep={() => model && save(model)}
      remove={remove}
      close={close}
    >
      <Fields fields={FIELDS} draft={draft} onType={setDraft} />
      {facts && <LensTable facts={facts} />}
    </FormFrame>
  );
}

/** What the core makes of a model's lens; asked while one types. */
function useLens(model: Model | null): { facts: LensFacts | null; fault: string } {
  const key = model ? JSON.stringify(model) : "";
  const [told, setTold] = useState<{ key: string; facts: LensFacts | null; fault: string } | null>(null);
  useEffect(() => {
    if (key === "") return undefined;
    let current = true;
    askAnywhere({ ask: "lens_facts", model: JSON.parse(key) as Model }).then(
      (facts) => current && setTold({ key, facts, fault: "" }),
      (error: unknown) => {
        if (current) setTold({ key, facts: null, fault: error instanceof Refused ? error.message : "" });
      },
    );
    return () => {
      current = false;
    };
  }, [key]);
  return told?.key === key ? told : { facts: null, fault: "" };
}

function LensTable({ facts }: { facts: LensFacts }) {
  const units = useSettings((settings) => settings.units);
  const far = facts.ends[0]?.px_per_m.map(([distance]) => distance) ?? [];
  return (
    <table className="lens-table" aria-label="What the lens does">
      <thead>
        <tr>
          <th>Lens</th>
          <th>Field</th>
          {far.map((distance) => (
            <th key={distance}>{formatLength(distance, units, 0)}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {facts.ends.map((end) => (
          <tr key={end.focal_mm}>
            <td className="figure">{end.focal_mm} mm</td>
            <td className="figure">
              {end.hfov_deg.toFixed(0)} × {end.vfov_deg.toFixed(0)}°
            </td>
            {end.px_per_m.map(([distance, density]) => (
              <td key={distance} className="figure">
                {shortPixels(density, units)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
