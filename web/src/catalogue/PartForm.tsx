/** A part of a mount in lines; nothing that makes no sense is kept. */
import { useEffect, useState } from "react";
import { Refused } from "../core/errors";
import { askAnywhere } from "../core/port";
import type { MountPart, Stock } from "../core/types";
import { Fields } from "./Fields";
import { FormFrame } from "./FormFrame";
import { PART_FIELDS, partOf } from "./partDraft";
import type { Draft } from "./typed";

interface Props {
  draft: Draft;
  /** Names that others go by. */
  taken: Set<string>;
  save(part: MountPart): void;
  remove?(): void;
  close(): void;
}

export function PartForm({ draft: first, taken, save, remove, close }: Props) {
  const [draft, setDraft] = useState(first);
  const made = partOf(draft);
  const part = "part" in made ? made.part : null;
  const fault = useFault(part);
  const wrong =
    "wrong" in made ? made.wrong : taken.has(made.part.name) ? "another part goes by this name" : (fault ?? "");
  return (
    <FormFrame
      label="Part of a mount"
      wrong={wrong}
      keeps={part !== null && wrong === "" && fault !== null}
      keep={() => part && save(part)}
      remove={remove}
      close={close}
    >
      <Fields fields={PART_FIELDS} draft={draft} onType={setDraft} />
    </FormFrame>
  );
}

/** What the core finds wrong with a part; null until it has looked. */
function useFault(part: MountPart | null): string | null {
  const key = part ? JSON.stringify(part) : "";
  const [told, setTold] = useState<{ key: string; fault: string } | null>(null);
  useEffect(() => {
    if (key === "") return undefined;
    let current = true;
    const alone: Stock = {
      format: "bright-angle/catalogue",
      version: 1,
      models: [],
      mounts: [JSON.parse(key) as MountPart],
    };
    askAnywhere({ ask: "read_stock", text: JSON.stringify(alone) }).then(
      () => current && setTold({ key, fault: "" }),
      (error: unknown) => {
        // Where the core is away, who keeps it decides: the server looks again.
        if (current) setTold({ key, fault: error instanceof Refused ? wordsOf(error) : "" });
      },
    );
    return () => {
      current = false;
    };
  }, [key]);
  return told?.key === key ? told.fault : null;
}

/** The field's word, and what is wrong with it. */
function wordsOf({ faults: [fault], message }: Refused): string {
  if (!fault) return message;
  const name = fault.path.split(".").at(-1) ?? "";
  const field = PART_FIELDS.find((one) => one.field === name.replace(/\[.*/, ""));
  return `${field?.word ?? fault.path} ${fault.message}`;
}
