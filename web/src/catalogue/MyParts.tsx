/** The firm's own parts of mounts: boxes, arms, caps; they come first where a camera is hung. */
import { useState } from "react";
import type { MountPart, Stock } from "../core/types";
import { changeCatalogue } from "../keep/ownCatalogue";
import { PART_WORDS, formWord } from "../ui/words";
import { PartForm } from "./PartForm";
import { draftOfPart } from "./partDraft";
import type { Draft } from "./typed";

export function MyParts({ parts }: { parts: MountPart[] }) {
  const [open, setOpen] = useState<{ id: string | null; draft: Draft } | null>(null);
  const put = async (says: string, change: (parts: MountPart[]) => MountPart[]): Promise<void> => {
    // At once: a second press while the server is slow finds no form to keep again.
    setOpen(null);
    await changeCatalogue(says, (held) => withParts(held, change(held.mounts ?? [])));
  };
  const save = (part: MountPart): Promise<void> =>
    open?.id == null
      ? put(`Add ${part.name}`, (held) => [...held, part])
      : put(`Change ${part.name}`, (held) => held.map((other) => (other.id === open.id ? part : other)));
  return (
    <section aria-label="My mounts" className="my-parts">
      <div className="sites-head">
        <h2>My mounts</h2>
        <button type="button" className="plain-button" onClick={() => setOpen({ id: null, draft: draftOfPart(null) })}>
          New part
        </button>
      </div>
      {open && (
        <PartForm
          key={open.id ?? "new"}
          draft={open.draft}
          taken={new Set(parts.filter(({ id }) => id !== open.id).map(({ name }) => name))}
          save={(part) => void save(part)}
          {...(open.id === null
            ? {}
            : {
                remove: () =>
                  void put(`Delete ${open.draft.typed["name"] ?? "a part"}`, (held) =>
                    held.filter(({ id }) => id !== open.id),
                  ),
              })}
          close={() => setOpen(null)}
        />
      )}
      {parts.length === 0 && !open && (
        <p className="hint">
          No part of your own. What is entered here comes before the generic parts where a camera is hung.
        </p>
      )}
      <ul className="models">
        {parts.map((part) => (
          <li key={part.id} data-testid="own-part">
            <button
              type="button"
              className="model-row"
              onClick={() => setOpen({ id: part.id, draft: draftOfPart(part) })}
            >
              <strong>{part.name}</strong>
              <span className="fine">{inShort(part)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function withParts(stock: Stock, mounts: MountPart[]): Stock {
  const next: Stock = { ...stock, mounts };
  if (mounts.length === 0) delete next.mounts;
  return next;
}

const inShort = ({ kind, weight_kg, carries_kg, forms = [], price }: MountPart): string =>
  [
    PART_WORDS[kind],
    `${weight_kg} kg`,
    typeof carries_kg === "number" ? `carries ${carries_kg} kg` : null,
    forms.map(formWord).join("/"),
    typeof price === "number" ? price.toFixed(2) : null,
  ]
    .filter(Boolean)
    .join(", ");
