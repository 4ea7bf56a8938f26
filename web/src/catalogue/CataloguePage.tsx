/** My cameras: the models that the firm sells, to be found, entered, read from a data sheet, brought in and taken out. */
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import type { Model } from "../core/types";
import { changeCatalogue, refresh, useOwnCatalogue } from "../keep/ownCatalogue";
import { Masthead } from "../ui/Masthead";
import { formWord } from "../ui/words";
import { FilesOf } from "./FilesOf";
import { ModelForm } from "./ModelForm";
import { SheetReader } from "./SheetReader";
import { MyParts } from "./MyParts";
import { draftOf } from "./draft";
import type { Draft } from "./typed";
import "./catalogue.css";

/** So many are shown; a search finds the others. */
const SHOWN = 50;

export function CataloguePage() {
  const { stock, unsaved, trouble } = useOwnCatalogue();
  const [search, setSearch] = useState("");
  const [open, setOpen] = useState<{ name: string | null; draft: Draft } | null>(null);
  const [reading, setReading] = useState(false);
  const sought = useDeferredValue(search.trim().toLowerCase());
  useEffect(() => void refresh(), []);
  const texts = useMemo(() => stock.models.map(textOf), [stock]);
  const found = sought === "" ? stock.models : stock.models.filter((_, place) => texts[place]?.includes(sought));
  const save = async (model: Model): Promise<void> => {
    const before = open?.name ?? null;
    await changeCatalogue(before === null ? `Add ${model.name}` : `Change ${model.name}`, (held) => ({
      ...held,
      models:
        before === null ? [...held.models, model] : held.models.map((other) => (other.name === before ? model : other)),
    }));
    setOpen(null);
  };
  const remove = async (name: string): Promise<void> => {
    await changeCatalogue(`Delete ${name}`, (held) => ({
      ...held,
      models: held.models.filter((model) => model.name !== name),
    }));
    setOpen(null);
  };
  const taken = new Set(stock.models.map((model) => model.name).filter((name) => name !== open?.name));
  return (
    <>
      <Masthead />
      <main className="catalogue">
        <div className="sites-head">
          <h1>My cameras</h1>
          <FilesOf stock={stock} />
          <button type="button" className="plain-button" onClick={() => setReading(!reading)}>
            Read a data sheet
          </button>
          <button
            type="button"
            className="plain-button plain-primary"
            onClick={() => setOpen({ name: null, draft: draftOf(null) })}
          >
            New camera
          </button>
        </div>
        {unsaved && (
          <p className="hint" role="status">
            On this device; it is sent when the server answers{trouble && ` (${trouble})`}.
          </p>
        )}
        {reading && (
          <SheetReader
            use={(draft) => {
              setReading(false);
              setOpen({ name: null, draft });
            }}
            close={() => setReading(false)}
          />
        )}
        {open && (
          <ModelForm
            key={open.name ?? "new"}
            draft={open.draft}
            taken={taken}
            save={(model) => void save(model)}
            {...(open.name === null ? {} : { remove: () => void remove(open.name ?? "") })}
            close={() => setOpen(null)}
          />
        )}
        {stock.models.length > 4 && (
          <input
            type="search"
            className="sites-find"
            aria-label="Find a camera"
            placeholder="Find by name, form, rating"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        )}
        {stock.models.length === 0 && !open && (
          <p className="hint">
            None yet. Paste a data sheet, bring in a table, or enter one: it is then offered first, in the survey and at
            the desk.
          </p>
        )}
        <ul className="models">
          {found.slice(0, SHOWN).map((model) => (
            <li key={model.name} data-testid="own-model">
              <button
                type="button"
                className="model-row"
                onClick={() => setOpen({ name: model.name, draft: draftOf(model) })}
              >
                <strong>{model.name}</strong>
                <span className="fine">{inShort(model)}</span>
              </button>
            </li>
          ))}
        </ul>
        {found.length > SHOWN && <p className="hint">{found.length - SHOWN} more: say more of what is sought.</p>}
        <MyParts parts={stock.mounts ?? []} />
      </main>
    </>
  );
}

const textOf = (model: Model): string =>
  [model.name, formWord(model.form), model.ip, model.ik, model.back_box].join(" ").toLowerCase();

function inShort(model: Model): string {
  const { lens, sensor } = model;
  const zoom = lens.focal_max_mm > lens.focal_min_mm;
  return [
    formWord(model.form),
    `${((sensor.width_px * sensor.height_px) / 1e6).toFixed(0)} MP`,
    zoom ? `${lens.focal_min_mm}–${lens.focal_max_mm} mm` : `${lens.focal_min_mm} mm`,
    model.ip,
    model.ik,
    typeof model.price === "number" ? model.price.toFixed(2) : null,
  ]
    .filter(Boolean)
    .join(", ");
}
