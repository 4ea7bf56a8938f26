/** A data sheet, pasted or opened: what was found, each figure with its line, to be confirmed; what is missing; what contradicts. */
import { useRef, useState } from "react";
import type { Sheet } from "../core/types";
import { READS_LONG, request } from "../keep/http";
import { FIELDS, draftOf } from "./draft";
import type { Draft } from "./typed";

const WORDS = new Map<string, string>([
  ...FIELDS.map(({ field, word }): [string, string] => [field, word]),
  ["tilts_deg", "Tilts"],
  ["infrared.range_m", "Infrared range"],
]);
const wordOf = (field: string): string => WORDS.get(field) ?? field;

export function SheetReader({ use, close }: { use(draft: Draft): void; close(): void }) {
  const [text, setText] = useState("");
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: Blob): Promise<void> => {
    setFault("");
    setSheet(null);
    setBusy(true);
    try {
      setSheet(await request<Sheet>("POST", "/api/sheet", file, undefined, READS_LONG));
    } catch (error) {
      setFault((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <section className="sheet-reader" aria-label="Read a data sheet">
      <label>
        Paste the text of the sheet
        <textarea rows={6} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      <div className="row">
        <button
          type="button"
          className="plain-button plain-primary"
          disabled={busy || text.trim() === ""}
          onClick={() => void read(new Blob([text], { type: "text/plain" }))}
        >
          Read it
        </button>
        <button type="button" className="plain-button" disabled={busy} onClick={() => input.current?.click()}>
          Open a PDF or a text file
        </button>
        <input
          ref={input}
          type="file"
          hidden
          accept=".pdf,.txt,text/plain,application/pdf"
          aria-label="Data sheet"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = "";
            if (file) void read(file);
          }}
        />
        <button type="button" className="plain-button" onClick={close}>
          Close
        </button>
      </div>
      {fault && (
        <div className="notice-box notice-bad" role="alert">
          The sheet {fault}.
        </div>
      )}
      {sheet && <Found sheet={sheet} use={use} />}
    </section>
  );
}

function Found({ sheet, use }: { sheet: Sheet; use(draft: Draft): void }) {
  if (sheet.models.length === 0)
    return <p role="status">Nothing was found in it that says what a camera is like. Enter it by hand.</p>;
  return (
    <>
      {sheet.contradicts.map((says) => (
        <div key={says} className="notice-box notice-bad" role="alert">
          It contradicts itself: {says}.
        </div>
      ))}
      {sheet.missing.length > 0 && <p>Not found, to be entered: {sheet.missing.map(wordOf).join(", ")}.</p>}
      {sheet.suggests.map(({ field, value, why }) => (
        <p key={field} className="fine">
          {wordOf(field)}: about {value}. {why}.
        </p>
      ))}
      {sheet.models.map((model, place) => (
        <div key={place} className="sheet-model" data-testid="sheet-model">
          <table>
            <tbody>
              {sheet.found
                .filter((found) => found.model === place)
                .map((found) => (
                  <tr key={found.field}>
                    <th>{wordOf(found.field)}</th>
                    <td className="figure">{said(found.value)}</td>
                    <td className="fine">{found.line}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          <button type="button" className="plain-button plain-primary" onClick={() => use(draftOf(model))}>
            {sheet.models.length === 1 ? "Confirm and go on" : `Confirm the ${focalOf(model)} mm lens`}
          </button>
        </div>
      ))}
    </>
  );
}

const focalOf = (model: unknown): string =>
  String((model as { lens?: { focal_min_mm?: number } }).lens?.focal_min_mm ?? "?");

const said = (value: unknown): string =>
  Array.isArray(value) ? value.join(", ") : typeof value === "string" ? value : JSON.stringify(value);
