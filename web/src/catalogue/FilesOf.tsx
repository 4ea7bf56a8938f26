/** The catalogue in and out: JSON, and CSV for a spreadsheet. */
import { useRef, useState } from "react";
import { askAnywhere } from "../core/port";
import type { Stock } from "../core/types";
import { saveFile } from "../keep/files";
import { changeCatalogue, eachWithItsId } from "../keep/ownCatalogue";

/** What stands there with what is brought: one of the same name takes its place. */
function joined<Named extends { name: string }>(held: Named[], brought: Named[]): Named[] {
  const names = new Set(brought.map(({ name }) => name));
  return [...held.filter(({ name }) => !names.has(name)), ...brought];
}

export function FilesOf({ stock }: { stock: Stock }) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState("");
  const bringIn = async (file: File): Promise<void> => {
    setFault("");
    try {
      const text = await file.text();
      const table = !text.trimStart().startsWith("{");
      const { models, mounts = [] } = table
        ? { models: await askAnywhere({ ask: "read_models", csv: text }) }
        : await askAnywhere({ ask: "read_stock", text });
      await changeCatalogue(`Bring in ${file.name}`, (held) => {
        const parts = eachWithItsId(joined(held.mounts ?? [], mounts));
        return { ...held, models: joined(held.models, models), ...(parts.length > 0 ? { mounts: parts } : {}) };
      });
    } catch (error) {
      setFault(`${file.name} was not brought in, nothing was changed: ${(error as Error).message}`);
    }
  };
  const takeOut = async (format: "json" | "csv"): Promise<void> => {
    const text =
      format === "json"
        ? JSON.stringify(stock, null, 2)
        : await askAnywhere({ ask: "write_models", models: stock.models });
    saveFile(new Blob([text], { type: format === "json" ? "application/json" : "text/csv" }), "My cameras", format);
  };
  return (
    <>
      <button type="button" className="plain-button" onClick={() => input.current?.click()}>
        Bring in
      </button>
      <input
        ref={input}
        type="file"
        hidden
        accept=".json,.csv,application/json,text/csv"
        aria-label="Catalogue file"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = "";
          if (file) void bringIn(file);
        }}
      />
      {stock.models.length + (stock.mounts?.length ?? 0) > 0 && (
        <>
          <button type="button" className="plain-button" onClick={() => void takeOut("csv")}>
            Save as CSV
          </button>
          <button type="button" className="plain-button" onClick={() => void takeOut("json")}>
            Save as JSON
          </button>
        </>
      )}
      {fault && (
        <div className="notice-box notice-bad" role="alert">
          {fault}
        </div>
      )}
    </>
  );
}
