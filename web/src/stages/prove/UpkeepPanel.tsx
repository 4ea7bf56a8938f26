/** Upkeep: what is due and when, the visit in hand in walking order, and the log of those before. */
import type { Due, DueItem, SiteFile, UpkeepVisit } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { ask } from "../../core/port";
import { saveFile } from "../../keep/files";
import { request } from "../../keep/http";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { goTo, proveAddress } from "../../ui/address";
import { Button } from "../../ui/controls";
import { useState } from "react";
import { VisitCard } from "./VisitCard";
import { beginVisit } from "./proveEdits";
import { today, useProveView } from "./proveView";

/** What is due so many days ahead is shown beside what is due now. */
const AHEAD_DAYS = 92;

export function UpkeepPanel({ site, item }: { site: SiteFile; item: string | null }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const { on: chosen, set } = useProveView();
  const on = chosen ?? today();
  const { surveyor } = useSettings();
  const due = useAnswer(site, { ask: "due", on }, { by: "surveyor", keeps: true });
  const visit = site.visits?.find((one) => one.id === item) ?? null;
  const begin = (): void => goTo(proveAddress(id, "upkeep", beginVisit(on, surveyor)));
  const open = site.visits?.find((one) => !one.closed) ?? null;
  return (
    <div className={visit ? "prove-three prove-two prove-one" : "prove-three prove-two"}>
      <section className="promises prove-list" aria-label="What is due">
        <div className="panel-head">
          <h2>Due</h2>
          <input
            type="date"
            aria-label="On"
            value={on}
            onChange={(event) => event.target.value && set({ on: event.target.value })}
          />
        </div>
        {due.refused && <p className="hint">{due.refused}</p>}
        <Told settled={due.settled} testId="due">
          {due.value && <DueList due={due.value} on={on} site={site} />}
        </Told>
        <div className="prove-begin">
          {open ? (
            <Button block onClick={() => goTo(proveAddress(id, "upkeep", open.id))}>
              Go on with the visit of {open.date}
            </Button>
          ) : (
            <Button type="primary" size="large" block disabled={!due.value} onClick={begin}>
              Begin a visit
            </Button>
          )}
        </div>
      </section>
      {visit && due.value ? (
        <VisitCard key={visit.id} site={site} visit={visit} due={due.value} settled={due.settled} />
      ) : (
        <Log site={site} id={id} on={on} gone={item !== null && !visit} />
      )}
    </div>
  );
}

function DueList({ due, on, site }: { due: Due; on: string; site: SiteFile }) {
  const until = new Date(Date.parse(on) + AHEAD_DAYS * 86_400_000).toISOString().slice(0, 10);
  const now = due.items.filter((one) => one.due <= on);
  const soon = due.items.filter((one) => one.due > on && one.due <= until);
  const names = due.not_begun.map((camera) => site.cameras.find(({ id }) => id === camera)?.name ?? camera);
  return (
    <>
      <Group word="Now" items={now} none="Nothing is due by this day." />
      <Group word="In three months" items={soon} none="Nothing in three months." />
      {names.length > 0 && (
        <p className="hint" data-testid="not-begun">
          Not in upkeep yet: {names.join(", ")}. It begins when a camera is closed on the stage Fit, or when its picture
          is kept as the reference.
        </p>
      )}
    </>
  );
}

function Group({ word, items, none }: { word: string; items: DueItem[]; none: string }) {
  return (
    <section aria-label={word}>
      <h3 className="prove-group">
        {word} <span className="figure">{items.length}</span>
      </h3>
      {items.length === 0 && <p className="hint">{none}</p>}
      <ul className="prove-due">
        {items.map((one) => (
          <li key={one.id} data-testid={`due-${one.id}`} data-overdue={one.overdue}>
            <span className="figure">{one.due}</span> {one.says}
            <span className="fine">
              {" "}
              {one.why}
              {one.last ? `; last ${one.last}` : ""}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The visits before, and what goes out of them. */
function Log({ site, id, on, gone }: { site: SiteFile; id: string; on: string; gone: boolean }) {
  const [fault, setFault] = useState("");
  const visits = [...(site.visits ?? [])].sort((a, b) => b.date.localeCompare(a.date));
  const says = (work: () => Promise<void>) => async (): Promise<void> => {
    setFault("");
    try {
      await work();
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  const csv = says(async () => {
    const text = await ask(site, { ask: "log_csv" }, "surveyor");
    saveFile(new Blob([text], { type: "text/csv" }), `${site.name} visits`, "csv");
  });
  const calendar = says(async () => {
    const text = await request<string>("POST", "/api/calendar", { site, id, on });
    saveFile(new Blob([text], { type: "text/calendar" }), `${site.name} upkeep`, "ics");
  });
  return (
    <section className="prove-middle prove-log" aria-label="Visits">
      <h2>Visits</h2>
      {gone && <p className="hint">There is no such visit any more.</p>}
      <div className="row">
        <Button size="small" onClick={() => void csv()} disabled={visits.length === 0}>
          Log as CSV
        </Button>
        <Button size="small" onClick={() => void calendar()}>
          What is due as a calendar
        </Button>
      </div>
      {fault && (
        <p className="notice notice-bad" role="alert">
          {fault}
        </p>
      )}
      {visits.length === 0 && <p className="hint">No visit yet.</p>}
      <ol className="prove-visits">
        {visits.map((visit) => (
          <VisitLine key={visit.id} visit={visit} id={id} />
        ))}
      </ol>
    </section>
  );
}

function VisitLine({ visit, id }: { visit: UpkeepVisit; id: string }) {
  const done = (visit.done ?? []).filter(({ how }) => how !== "later").length;
  const later = (visit.done ?? []).length - done;
  return (
    <li data-testid={`visit-${visit.id}`}>
      <a href={proveAddress(id, "upkeep", visit.id)}>{visit.date}</a>
      <span className="fine">
        {visit.by ? `${visit.by}, ` : ""}
        {done} done{later > 0 ? `, ${later} left for later` : ""}
        {visit.closed ? "" : ", still open"}
        {visit.note ? `. ${visit.note}` : ""}
      </span>
    </li>
  );
}
