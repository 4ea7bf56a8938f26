/** The catalogue in and out: JSON, and CSV for a spreadsheet. */
import { useRef, useState } from "react";
import { askAnywhere } from "../core/port";
import type { Stock } from "../core/types";
import { saveFile } from "../keep/files";
import { changeCatalogue } from "../keep/ownCatalogue";

export function FilesOf({ stock }: { stock: Stock }) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState("");
  const bringIn = async (file: File): Promise<void> => {
    setFault("");
    try {
      const text = await file.text();
      const table = !text.trimStart().startsWith("{");
      const models = table
        ? await askAnywhere({ ask: "read_models", csv: text })
        : (await askAnywhere({ ask: "read_stock", text })).models;
      const brought = new Map(models.map((model) => [model.name, model]));
      await changeCatalogue(`Bring in ${file.name}`, (held) => ({
        ...held,
        models: [...held.models.filter(({ name }) => !brought.has(name)), ...models],
      }));
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
      {stock.models.length > 0 && (
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
