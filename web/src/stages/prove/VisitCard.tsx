/** A visit: what is due in walking order, each ticked with what was found; it closes as a log. */
import type { Due, DueItem, SiteFile, StepHow, UpkeepVisit } from "../../core/types";
import { useState } from "react";
import { useSite } from "../../keep/store";
import { TextLine } from "../../ui/TextLine";
import { Told } from "../../ui/Told";
import { goTo, proveAddress } from "../../ui/address";
import { Button } from "../../ui/controls";
import { changeVisit, note } from "./proveEdits";
import { keyOf } from "./WalkPanel";

interface Props {
  site: SiteFile;
  visit: UpkeepVisit;
  due: Due;
  settled: boolean;
}

export function VisitCard({ site, visit, due, settled }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const listed = listOf(visit, due);
  // What is ticked is due no more, and stays where it stood: nothing moves under a hand.
  const [order] = useState(() => listed.map((one) => one.id));
  const place = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  const items = [...listed].sort((a, b) => place(a.id) - place(b.id));
  const left = items.filter((one) => !visit.done?.some((done) => done.id === one.id)).length;
  const close = (): void => {
    changeVisit(visit.id, "Close a visit", (held) => {
      held.closed = true;
    });
    goTo(proveAddress(id, "upkeep"));
  };
  return (
    <main className="prove-middle prove-visit" aria-label={`Visit of ${visit.date}`}>
      <a className="prove-back" href={proveAddress(id, "upkeep")}>
        ‹ All that is due
      </a>
      <h2>
        Visit of {visit.date} <span className="figure">{left} left</span>
      </h2>
      <p className="caution">{due.cautions.join(" ")}</p>
      <TextLine
        of={`by ${visit.id}`}
        word="Who came"
        value={visit.by ?? ""}
        onChange={(text) =>
          changeVisit(visit.id, "Who came", (held) => {
            if (text === "") delete held.by;
            else held.by = text;
          })
        }
      />
      <Told settled={settled} testId="visit-items">
        <ol className="prove-items">
          {items.map((item) => (
            <Item key={item.id} site={site} id={id} visit={visit} item={item} />
          ))}
        </ol>
      </Told>
      {items.length === 0 && <p className="hint">Nothing is due by {due.on}.</p>}
      <TextLine
        of={`note ${visit.id}`}
        word="Anything else"
        value={visit.note ?? ""}
        onChange={(text) =>
          changeVisit(visit.id, "A note of a visit", (held) => {
            if (text === "") delete held.note;
            else held.note = text;
          })
        }
      />
      {visit.closed ? (
        <Button
          block
          onClick={() =>
            changeVisit(visit.id, "Open a visit again", (held) => {
              delete held.closed;
            })
          }
        >
          Open it again
        </Button>
      ) : (
        <Button type="primary" size="large" block onClick={close}>
          {left === 0 ? "Close the visit" : `Close it, ${left} not looked at`}
        </Button>
      )}
    </main>
  );
}

/** What is due in walking order, and what was done already: that is not due any more. */
function listOf(visit: UpkeepVisit, due: Due): DueItem[] {
  const now = due.now.flatMap((id) => due.items.find((one) => one.id === id) ?? []);
  const done = (visit.done ?? [])
    .filter(({ id }) => !now.some((one) => one.id === id))
    .map(({ id, says }) => {
      const [word = "", ...of] = id.split(".");
      const known = due.items.find((one) => one.id === id);
      const plain = { id, of: of.join("."), name: "", at: [0, 0], why: "", last: visit.date, due: visit.date };
      return { ...plain, kind: (known?.kind ?? word) as DueItem["kind"], ...known, says, overdue: false };
    });
  return visit.closed ? done : [...now, ...done];
}

function Item({ site, id, visit, item }: { site: SiteFile; id: string; visit: UpkeepVisit; item: DueItem }) {
  const done = visit.done?.find((one) => one.id === item.id);
  const how: StepHow | "open" = done ? (done.how ?? "done") : "open";
  const tick = (next: StepHow): void => note(visit.id, item, how === next ? null : next);
  const found = (text: string): void =>
    changeVisit(visit.id, "What was found", (held) => {
      const one = held.done?.find((other) => other.id === item.id);
      if (!one) return;
      if (text === "") delete one.note;
      else one.note = text;
    });
  const heads = item.kind === "pictures" ? (site.cameras.find((one) => one.id === item.of)?.heads ?? []) : [];
  return (
    <li className="prove-item" data-testid={`item-${item.id}`} data-how={how}>
      <p>{item.says}</p>
      {heads.map((head) => (
        <a key={head.id} href={proveAddress(id, "pictures", keyOf({ camera: item.of, head: head.id }))}>
          Its pictures {heads.length > 1 ? head.id : ""}
        </a>
      ))}
      <div className="row">
        <Button
          type={how === "done" ? "primary" : "default"}
          aria-pressed={how === "done"}
          onClick={() => tick("done")}
        >
          Done
        </Button>
        <Button aria-pressed={how === "later"} onClick={() => tick("later")}>
          Later
        </Button>
        <Button aria-pressed={how === "left_out"} onClick={() => tick("left_out")}>
          Not here
        </Button>
      </div>
      {done && (
        <>
          <TextLine of={`found ${item.id}`} word="Found" value={done.note ?? ""} onChange={found} />
          {item.kind === "playback" && <Oldest site={site} visit={visit} item={item} oldest={done.oldest ?? null} />}
        </>
      )}
    </li>
  );
}

/** The oldest recording that is there, against the days promised. */
function Oldest({
  site,
  visit,
  item,
  oldest,
}: {
  site: SiteFile;
  visit: UpkeepVisit;
  item: DueItem;
  oldest: string | null;
}) {
  const promised = site.brief?.retention_days ?? null;
  const days = oldest === null ? null : Math.round((Date.parse(visit.date) - Date.parse(oldest)) / 86_400_000);
  const short = days !== null && promised !== null && days < promised;
  return (
    <label className="stacked">
      Oldest recording
      <input
        type="date"
        value={oldest ?? ""}
        max={visit.date}
        onChange={(event) =>
          changeVisit(visit.id, "The oldest recording", (held) => {
            const one = held.done?.find((other) => other.id === item.id);
            if (!one) return;
            if (event.target.value) one.oldest = event.target.value;
            else delete one.oldest;
          })
        }
      />
      {days !== null && (
        <span className={short ? "verdict-word-broken" : ""} data-testid="oldest-says">
          {days} days back{promised === null ? "" : `, ${promised} promised`}
        </span>
      )}
    </label>
  );
}
