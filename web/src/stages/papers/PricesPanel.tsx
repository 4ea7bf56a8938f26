/** Prices: what the firm charges, what has no price yet, and what all of it comes to. */
import { App, Upload } from "antd";
import { useState } from "react";
import { Refused } from "../../core/errors";
import { askOffer } from "../../core/offer";
import type { BillLine, Prices, SiteFile, Work } from "../../core/types";
import { useOffer } from "../../core/useOffer";
import { saveFile } from "../../keep/files";
import { changeCatalogue, useOwnCatalogue } from "../../keep/ownCatalogue";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { TextLine } from "../../ui/TextLine";
import { Button } from "../../ui/controls";
import { NOT_AN_AMOUNT, isAmount, isCurrency, isDay } from "./words";

type Field = "hour" | "visit" | "lift_day" | "margin_percent" | "tax_percent";

const FIELDS: { field: Field; word: string }[] = [
  { field: "hour", word: "An hour of one person’s work" },
  { field: "visit", word: "The way there and back, each visit" },
  { field: "lift_day", word: "A lift, each day" },
  { field: "margin_percent", word: "Margin on what is bought, per cent" },
  { field: "tax_percent", word: "Tax on all of it, per cent" },
];

const WORK: { work: Work; word: string }[] = [
  { work: "bench", word: "On the bench" },
  { work: "boxes", word: "Boxes of the network" },
  { work: "ladder", word: "From a ladder" },
  { work: "lift", word: "From a lift" },
  { work: "night", word: "By night" },
];

const edit = (says: string, change: (prices: Prices) => void): void =>
  useSite.getState().edit(says, (draft) => {
    const prices = (draft.prices ??= {});
    change(prices);
    if (Object.keys(prices).length === 0) delete draft.prices;
  });

export function PricesPanel({ site }: { site: SiteFile }) {
  const { value: bill, settled, refused } = useOffer(site, { ask: "bill" });
  const prices = site.prices ?? {};
  return (
    <div className="papers-prices">
      <div className="papers-fields">
        <h3>What the firm charges</h3>
        <TextLine
          of="currency"
          word="Money, three letters"
          placeholder="EUR"
          value={prices.currency ?? ""}
          right={isCurrency}
          wrong="three capital letters, as in EUR"
          onChange={(text) => edit("Change the money", (held) => put(held, "currency", text))}
        />
        {FIELDS.map(({ field, word }) => (
          <TextLine
            key={field}
            of={field}
            word={word}
            value={prices[field] ?? ""}
            right={isAmount}
            wrong={NOT_AN_AMOUNT}
            onChange={(text) => edit(`Price: ${word}`, (held) => put(held, field, text))}
          />
        ))}
        <h3>On the paper</h3>
        <TextLine
          of="firm"
          word="Your firm"
          value={prices.firm ?? ""}
          onChange={(text) => edit("Name of the firm", (held) => put(held, "firm", text))}
        />
        <TextLine
          of="valid"
          word="The quote holds until"
          placeholder="2026-12-31"
          value={prices.valid_until ?? ""}
          right={isDay}
          wrong="a day such as 2026-12-31"
          onChange={(text) => edit("The quote holds until", (held) => put(held, "valid_until", text))}
        />
        <TextLine
          of="note"
          word="A word to the client"
          value={prices.note ?? ""}
          onChange={(text) => edit("A word to the client", (held) => put(held, "note", text))}
        />
        <Lists site={site} />
      </div>
      <div>
        {refused && (
          <p role="alert" className="verdict-word-broken">
            {refused}
          </p>
        )}
        {!bill && !refused && <p className="hint">Working …</p>}
        {bill && (
          <Told settled={settled} testId="bill">
            {bill.unknown.length > 0 && (
              <p className="verdict-word-tight">
                {bill.unknown.length} {bill.unknown.length === 1 ? "line has" : "lines have"} no price yet: what stands
                below is at least so much.
              </p>
            )}
            <table className="wire-rows papers-bill">
              <thead>
                <tr>
                  <th>What</th>
                  <th>How much</th>
                  <th>Each</th>
                  <th>Together</th>
                </tr>
              </thead>
              <tbody>
                {bill.lines.map((line) => (
                  <Line key={`${line.kind} ${line.what}`} line={line} prices={prices} />
                ))}
              </tbody>
              <tfoot>
                <Sum word="Bought" value={bill.goods} />
                <Sum word="Margin" value={bill.margin} />
                <Sum word="Before tax" value={bill.net} />
                <Sum word={bill.tax_known ? "Tax" : "Tax is not stated"} value={bill.tax} />
                <Sum word={`Together${bill.currency ? `, ${bill.currency}` : ""}`} value={bill.total} />
              </tfoot>
            </table>
            <Extras prices={prices} />
            <p className="fine">
              Hours are as the day of fitting reckons them, two people at a ladder. A metre of cable is charged with its
              laying, by the prices of wiring. Type another figure where yours differs.
            </p>
          </Told>
        )}
      </div>
    </div>
  );
}

function put(prices: Prices, field: Field | "currency" | "firm" | "valid_until" | "note", text: string): void {
  if (text === "") Reflect.deleteProperty(prices, field);
  else prices[field] = text;
}

function Line({ line, prices }: { line: BillLine; prices: Prices }) {
  const name = line.priced_as;
  const work = WORK.find(({ work }) => WORK_LINES[work] === line.what);
  const held = work && (prices.work ?? []).find((one) => one.work === work.work);
  return (
    <tr className={line.total === null ? "papers-unknown" : undefined}>
      <td>{line.what}</td>
      <td className="figure">
        {work ? (
          <TextLine
            of={`hours ${work.work}`}
            word=""
            label={`Hours: ${line.what}`}
            placeholder={line.count}
            value={held?.hours ?? ""}
            right={isAmount}
            wrong={NOT_AN_AMOUNT}
            onChange={(text) =>
              edit(`Hours: ${work.word}`, (draft) => {
                const others = (draft.work ?? []).filter((one) => one.work !== work.work);
                draft.work = text === "" ? others : [...others, { ...held, work: work.work, hours: text }];
                if (draft.work.length === 0) delete draft.work;
              })
            }
          />
        ) : (
          `${line.count} ${line.unit}`
        )}
      </td>
      <td className="figure">
        {name === null ? (
          (line.each ?? "not known")
        ) : (
          <TextLine
            of={name}
            word=""
            label={`Price of ${name}`}
            placeholder={line.each ?? "not known"}
            value={(prices.items ?? []).find((item) => item.what === name)?.each ?? ""}
            right={isAmount}
            wrong={NOT_AN_AMOUNT}
            onChange={(text) =>
              edit(`Price of ${name}`, (draft) => {
                const others = (draft.items ?? []).filter((item) => item.what !== name);
                draft.items = text === "" ? others : [...others, { what: name, each: text }];
                if (draft.items.length === 0) delete draft.items;
              })
            }
          />
        )}
      </td>
      <td className="figure">{line.total ?? "not known"}</td>
    </tr>
  );
}

/** How the core names each kind of work. */
const WORK_LINES: Record<Work, string> = {
  bench: "Cameras set up on the bench",
  boxes: "Boxes of the network put up, two people",
  ladder: "Cameras hung and aimed from a ladder, two people",
  lift: "Cameras hung and aimed from a lift, two people",
  night: "Looked at again by night",
};

const Sum = ({ word, value }: { word: string; value: string }) => (
  <tr>
    <td colSpan={3}>{word}</td>
    <td className="figure">{value}</td>
  </tr>
);

function Extras({ prices }: { prices: Prices }) {
  const [name, setName] = useState("");
  return (
    <div className="papers-extras">
      <TextLine of="extra" word="Something else that is charged" value={name} onChange={setName} />
      <Button
        size="small"
        disabled={name === ""}
        onClick={() => {
          edit(`Charge ${name}`, (draft) => {
            (draft.extras ??= []).push({ name, count: "1" });
          });
          setName("");
        }}
      >
        Add it
      </Button>
      {(prices.extras ?? []).map((extra, place) => (
        <div key={`${place} ${extra.name}`} className="row">
          <span>{extra.name}</span>
          <TextLine
            of={`count ${place}`}
            word="How much"
            label={`How much: ${extra.name}`}
            value={extra.count}
            right={isAmount}
            wrong={NOT_AN_AMOUNT}
            onChange={(text) =>
              edit(`How much: ${extra.name}`, (draft) => {
                const held = draft.extras?.[place];
                if (held && text !== "") held.count = text;
              })
            }
          />
          <TextLine
            of={`each ${place}`}
            word="Each"
            label={`Price of ${extra.name}`}
            value={extra.each ?? ""}
            right={isAmount}
            wrong={NOT_AN_AMOUNT}
            onChange={(text) =>
              edit(`Price of ${extra.name}`, (draft) => {
                const held = draft.extras?.[place];
                if (!held) return;
                if (text === "") delete held.each;
                else held.each = text;
              })
            }
          />
          <Button
            size="small"
            onClick={() =>
              edit(`No longer charge ${extra.name}`, (draft) => {
                draft.extras?.splice(place, 1);
                if (draft.extras?.length === 0) delete draft.extras;
              })
            }
          >
            Take out
          </Button>
        </div>
      ))}
    </div>
  );
}

/** The firm's list, and the list as a table. */
function Lists({ site }: { site: SiteFile }) {
  const { message } = App.useApp();
  const { stock } = useOwnCatalogue();
  const [faults, setFaults] = useState<string[]>([]);
  const csv = async (): Promise<void> => {
    try {
      const text = await askOffer(site, { ask: "write_prices" }, new AbortController().signal);
      if (text !== null) saveFile(new Blob([text], { type: "text/csv" }), `${site.name} prices`, "csv");
    } catch (error) {
      void message.warning((error as Error).message);
    }
  };
  const read = async (file: File): Promise<void> => {
    try {
      const csv = await file.text();
      const prices = await askOffer(site, { ask: "read_prices", csv }, new AbortController().signal);
      setFaults([]);
      if (prices) useSite.getState().edit(`Prices of ${file.name}`, (draft) => void (draft.prices = prices));
    } catch (error) {
      setFaults(
        error instanceof Refused
          ? error.faults.map((fault) => `${fault.path}: ${fault.message}`)
          : [(error as Error).message],
      );
    }
  };
  const mine = stock.prices;
  return (
    <>
      <div className="row papers-lists">
        <Button size="small" onClick={() => void csv()}>
          Save as CSV
        </Button>
        <Upload
          accept=".csv,text/csv"
          showUploadList={false}
          beforeUpload={(file) => {
            void read(file);
            return false;
          }}
        >
          <Button size="small">Read a CSV</Button>
        </Upload>
      </div>
      <div className="row papers-lists">
        <Button
          size="small"
          disabled={!site.prices}
          onClick={() =>
            void changeCatalogue("Prices of the firm", (held) => {
              // What is of this quote alone stays with it.
              const prices: Prices = { ...site.prices };
              for (const field of ["valid_until", "note", "extras"] as const) Reflect.deleteProperty(prices, field);
              return { ...held, prices, ...(prices.currency ? { currency: prices.currency } : {}) };
            })
          }
        >
          Keep as the firm’s prices
        </Button>
        <Button
          size="small"
          disabled={!mine}
          onClick={() => {
            if (mine) edit("Take the firm’s prices", (draft) => Object.assign(draft, structuredClone(mine)));
          }}
        >
          Take the firm’s prices
        </Button>
      </div>
      {faults.length > 0 && (
        <ul role="alert" className="verdict-word-broken">
          {faults.map((fault) => (
            <li key={fault}>{fault}</li>
          ))}
        </ul>
      )}
    </>
  );
}
