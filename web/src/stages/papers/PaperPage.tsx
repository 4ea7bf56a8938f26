/** The quote and the hand-over as pages that print well and need no network, and the same as a PDF from the server. */
import { App, Checkbox } from "antd";
import { type ReactNode, useEffect, useState } from "react";
import type { HeadRef, Paper, PaperCamera, PaperPart, PhotoLaid, SiteFile } from "../../core/types";
import { useOffer } from "../../core/useOffer";
import { saveFile } from "../../keep/files";
import { Away, READS_LONG, request } from "../../keep/http";
import { useSettings } from "../../keep/settings";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button, Select } from "../../ui/controls";
import { Costs } from "./Costs";
import { Signature, type Strokes } from "./Signature";
import { LayInPhoto, photographed } from "./LayInPhoto";
import { headsOf, viewOf } from "./viewPicture";
import { cameras, costs } from "./words";

type Kind = "quote" | "handover";

const PARTS: Record<Kind, { part: PaperPart; word: string }[]> = {
  quote: [
    { part: "quote", word: "Promises and price" },
    { part: "options", word: "Options" },
    { part: "plan", word: "Plan" },
    { part: "views", word: "Views" },
    { part: "notes", word: "What it does not do, privacy, cautions" },
  ],
  handover: [
    { part: "cover", word: "Cover" },
    { part: "plan", word: "Plan" },
    { part: "schedule", word: "Cameras" },
    { part: "views", word: "Views" },
    { part: "promises", word: "Promises" },
    { part: "network", word: "Runs and network" },
    { part: "settings", word: "Settings" },
    { part: "notes", word: "Privacy, cautions, upkeep" },
    { part: "sign", word: "Sign-off" },
  ],
};

export function PaperPage({ site, kind }: { site: SiteFile; kind: Kind }) {
  const units = useSettings((settings) => settings.units);
  const { value: paper, settled, refused } = useOffer(site, { ask: "paper", units });
  const [left, setLeft] = useState<PaperPart[]>([]);
  const [size, setSize] = useState<"a4" | "letter">("a4");
  const parts = PARTS[kind].filter(({ part }) => !left.includes(part)).map(({ part }) => part);
  const has = (part: PaperPart): boolean => parts.includes(part);
  return (
    <div className="papers-page-and-tools" data-settled={settled}>
      <div className="no-print papers-head">
        <div className="papers-choice">
          {PARTS[kind].map(({ part, word }) => (
            <Checkbox
              key={part}
              checked={has(part)}
              onChange={({ target }) =>
                setLeft((held) => (target.checked ? held.filter((one) => one !== part) : [...held, part]))
              }
            >
              {word}
            </Checkbox>
          ))}
        </div>
        <div className="row">
          <Select
            size="small"
            value={size}
            aria-label="Paper"
            options={[
              { value: "a4", label: "A4" },
              { value: "letter", label: "Letter" },
            ]}
            onChange={(next: "a4" | "letter") => setSize(next)}
          />
          <Button type="primary" disabled={!paper || !settled} onClick={() => window.print()}>
            Print
          </Button>
          <AsPdf site={site} parts={parts} paper={size} title={kind === "quote" ? "quote" : "hand-over"} />
        </div>
      </div>
      {refused && (
        <p role="alert" className="verdict-word-broken">
          {refused}
        </p>
      )}
      {!paper && !refused && <p className="hint">Working …</p>}
      {paper && (
        <article
          className={`paper paper-${size}`}
          data-testid="paper"
          aria-label={kind === "quote" ? "Quote" : "Hand-over"}
        >
          <PaperHead paper={paper} kind={kind} />
          {has("quote") && <Promised paper={paper} priced />}
          {has("options") && <OptionTable paper={paper} />}
          {has("plan") && <PlanSheet site={site} />}
          {has("schedule") && <Schedule paper={paper} />}
          {has("views") && <Views site={site} paper={paper} current={settled} />}
          {has("promises") && <Promised paper={paper} priced={false} />}
          {has("promises") && <AsProved paper={paper} />}
          {has("network") && <Network paper={paper} />}
          {has("settings") && <Settings paper={paper} />}
          {has("notes") && <Notes paper={paper} kind={kind} />}
          {(has("sign") || kind === "quote") && <SignOff paper={paper} />}
        </article>
      )}
    </div>
  );
}

function AsPdf({ site, parts, paper, title }: { site: SiteFile; parts: PaperPart[]; paper: string; title: string }) {
  const { message } = App.useApp();
  const units = useSettings((settings) => settings.units);
  const [stop, setStop] = useState<AbortController | null>(null);
  useEffect(() => () => stop?.abort(), [stop]);
  const make = async (): Promise<void> => {
    const mine = new AbortController();
    setStop(mine);
    try {
      const asked = { site, parts, paper, units };
      const pdf = await request<Blob>("POST", "/api/papers", asked, mine.signal, READS_LONG);
      saveFile(pdf, `${site.name} ${title}`, "pdf");
    } catch (error) {
      if (!mine.signal.aborted)
        void message.warning(
          error instanceof Away
            ? "The PDF is set on the server, which is away. Print the page instead: it needs no network."
            : (error as Error).message,
        );
    }
    setStop((held) => (held === mine ? null : held));
  };
  return stop ? (
    <Button onClick={() => stop.abort()}>Stop the PDF</Button>
  ) : (
    <Button disabled={parts.length === 0} onClick={() => void make()}>
      Save as PDF
    </Button>
  );
}

function PaperHead({ paper, kind }: { paper: Paper; kind: Kind }) {
  return (
    <header className="paper-head">
      <p className="paper-firm" dir="auto">
        {paper.firm ?? ""}
      </p>
      <h1 dir="auto">{paper.site}</h1>
      <p>
        {kind === "quote" ? "Quote" : "Hand-over"}
        {paper.client && (
          <>
            {" for "}
            <span dir="auto">{paper.client}</span>
          </>
        )}
        {paper.address && (
          <>
            {", "}
            <span dir="auto">{paper.address}</span>
          </>
        )}
        {kind === "quote" && paper.valid_until && ` · holds until ${paper.valid_until}`}
      </p>
      {paper.note && <p dir="auto">{paper.note}</p>}
    </header>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="paper-part">
    <h2>{title}</h2>
    {children}
  </section>
);

/** What walk tests showed, and which pictures are kept. */
function AsProved({ paper }: { paper: Paper }) {
  if (paper.proved.length + paper.evidence.length === 0) return null;
  return (
    <Part title="As proved">
      {paper.proved.length > 0 && (
        <table data-testid="paper-proved">
          <thead>
            <tr>
              <th>Promise</th>
              <th>By day</th>
              <th>By night</th>
            </tr>
          </thead>
          <tbody>
            {paper.proved.map((one) => (
              <tr key={one.target}>
                <td dir="auto">{one.name}</td>
                <td>
                  <VerdictMark verdict={one.day} size={14} /> {one.day_says}
                </td>
                <td>
                  <VerdictMark verdict={one.night} size={14} /> {one.night_says}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {paper.evidence.length > 0 && (
        <ul className="paper-evidence">
          {paper.evidence.map((one) => (
            <li key={`${one.says} ${one.picture}`}>
              {one.says} <span className="fine figure">SHA-256 {one.picture.slice(0, 16)}…</span>
            </li>
          ))}
        </ul>
      )}
    </Part>
  );
}

function Promised({ paper, priced }: { paper: Paper; priced: boolean }) {
  return (
    <Part title={`What is promised, ${paper.conditions}`}>
      <table>
        <thead>
          <tr>
            <th>Promise</th>
            <th>What for</th>
            <th>By</th>
            <th>{paper.promises.some((one) => one.designed) ? "By design / as built" : "It is"}</th>
          </tr>
        </thead>
        <tbody>
          {paper.promises.map((one) => (
            <tr key={one.target}>
              <td dir="auto">{one.name}</td>
              <td>
                {one.says}
                {!priced && (
                  <span className="fine">
                    {" "}
                    needs {one.needs_px_per_m.toFixed(0)}, gets {one.px_per_m.toFixed(0)} px/m; {one.basis}.{" "}
                    {one.leaves_out}
                  </span>
                )}
              </td>
              <td dir="auto">{one.camera ?? "—"}</td>
              <td className="paper-verdict">
                {one.designed && (
                  <>
                    <VerdictMark verdict={one.designed} size={14} /> {one.designed} /{" "}
                  </>
                )}
                <VerdictMark verdict={one.verdict} size={14} /> {one.verdict}
                {one.because && <span className="fine"> {one.because}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {priced && (
        <>
          <h2>What it costs</h2>
          <Costs bill={paper.bill} />
          {paper.bill.unknown.length > 0 && <p className="fine">Not priced: {paper.bill.unknown.join(", ")}.</p>}
          {!paper.bill.tax_known && <p className="fine">Tax is not stated.</p>}
        </>
      )}
    </Part>
  );
}

function OptionTable({ paper }: { paper: Paper }) {
  if (paper.options.length === 0) return null;
  return (
    <Part title="Options">
      <table>
        <thead>
          <tr>
            <th>Option</th>
            <th>Cameras</th>
            <th>What falls away</th>
            <th>Price</th>
          </tr>
        </thead>
        <tbody>
          {paper.options.map((option) => (
            <tr key={option.kind}>
              <td>{option.name}</td>
              <td>{cameras(option.cameras.length)}</td>
              <td>
                {option.falls_away.length === 0
                  ? "nothing"
                  : option.falls_away.map((falls) => <div key={falls.target}>{falls.says}</div>)}
              </td>
              <td className="figure">{costs(option.bill)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

function PlanSheet({ site }: { site: SiteFile }) {
  const { value } = useOffer(site, { ask: "plan_sheet" });
  return (
    <Part title="Plan">
      {value === null ? (
        <p className="hint">Working …</p>
      ) : (
        <img
          className="paper-plan"
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(value)}`}
          alt={`Plan of ${site.name} with what the cameras cover`}
        />
      )}
    </Part>
  );
}

function Schedule({ paper }: { paper: Paper }) {
  return (
    <Part title="Cameras">
      <table>
        <thead>
          <tr>
            <th>Camera</th>
            <th>Model</th>
            <th>Where</th>
            <th>Aim by design, and as built</th>
          </tr>
        </thead>
        <tbody>
          {paper.cameras.map((camera) => (
            <tr key={camera.id}>
              <td dir="auto">{camera.name}</td>
              <td dir="auto">
                {camera.model}
                {camera.there_before ? ", was there before" : ""}
              </td>
              <td>
                <span dir="auto">{camera.spot}</span>, {camera.height} up
              </td>
              <td>
                {camera.heads.map((head) => (
                  <div key={head.head.head}>
                    {head.aim}
                    {head.as_built && <div>as built: {head.as_built}</div>}
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}

/** The expected views, one after the other: each is there as soon as it is worked out. */
function useViews(
  site: SiteFile,
  paper: Paper | null,
): { of: SiteFile; views: ReadonlyMap<string, string>; fault: string | null } {
  const [held, setHeld] = useState<{ of: SiteFile; views: ReadonlyMap<string, string>; fault: string | null }>({
    of: site,
    views: new Map(),
    fault: null,
  });
  useEffect(() => {
    // What the papers say of another state of the site lays no view into a photo.
    if (!paper) return;
    let current = true;
    const load = async (): Promise<void> => {
      const views = new Map<string, string>();
      for (const head of headsOf(site)) {
        const view = await viewOf(site, head, laidOf(paper, head));
        if (!isCurrent()) return;
        if (view) views.set(`${head.camera} ${head.head}`, view);
        setHeld({ of: site, views: new Map(views), fault: null });
      }
    };
    const isCurrent = (): boolean => current;
    load().catch((error: unknown) => {
      if (isCurrent()) setHeld((before) => ({ ...before, fault: (error as Error).message }));
    });
    return () => {
      current = false;
    };
  }, [site, paper]);
  return held;
}

const laidOf = (paper: Paper, head: HeadRef): PhotoLaid | null =>
  paper.cameras.find(({ id }) => id === head.camera)?.heads.find((one) => one.head.head === head.head)?.in_photo ??
  null;

/** A page a view: the computed picture, and what was photographed. */
function Views({ site, paper, current }: { site: SiteFile; paper: Paper; current: boolean }) {
  const { of, views, fault } = useViews(site, current ? paper : null);
  return (
    <>
      {fault && <p className="verdict-word-broken">{fault}</p>}
      {headsOf(site).map((head) => {
        const camera = paper.cameras.find(({ id }) => id === head.camera);
        const key = `${head.camera} ${head.head}`;
        const view = views.get(key);
        return (
          camera && (
            <View
              key={key}
              site={site}
              head={head}
              camera={camera}
              laid={laidOf(paper, head)}
              view={view}
              settled={view !== undefined && of === site}
            />
          )
        );
      })}
    </>
  );
}

interface ViewProps {
  site: SiteFile;
  head: HeadRef;
  camera: PaperCamera;
  laid: PhotoLaid | null;
  view: string | undefined;
  settled: boolean;
}

function View({ site, head, camera, laid, view, settled }: ViewProps) {
  const spot = photographed(site, head.camera);
  return (
    <section className="paper-part paper-view" data-testid="paper-view" data-settled={settled}>
      <h2 dir="auto">{camera.name}</h2>
      <p>
        <span dir="auto">{camera.what_for}</span>. <span className="fine">{camera.model}</span>
      </p>
      {view === undefined ? (
        <p className="hint">The view is being worked out …</p>
      ) : (
        <img src={view} alt={`What ${camera.name} will see`} />
      )}
      <p className="fine">
        {laid
          ? "A photo from its spot, turned to what the camera will see."
          : "Computed picture: what is not drawn on the plan is not in it."}
      </p>
      {spot && <LayInPhoto site={site} head={head} spot={spot} />}
      {[...camera.photos, ...camera.from_spot]
        .filter((photo) => photo !== laid?.picture)
        .slice(0, 2)
        .map((photo) => (
          <img key={photo} src={`/api/pictures/${photo}`} alt={`Photo at ${camera.name}`} />
        ))}
    </section>
  );
}

function Network({ paper }: { paper: Paper }) {
  const { network, wiring, store } = paper;
  const name = (id: string): string => network.labels.find((label) => label.cable === id)?.here ?? id;
  return (
    <Part title="Runs, network and store">
      <table>
        <thead>
          <tr>
            <th>Cable</th>
            <th>Length</th>
            <th>It is</th>
          </tr>
        </thead>
        <tbody>
          {wiring.cables.map((cable) => (
            <tr key={cable.id}>
              <td dir="auto">{name(cable.id)}</td>
              <td className="figure">{cable.length_m.toFixed(0)} m</td>
              <td>{cable.verdict}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table>
        <thead>
          <tr>
            <th>Device</th>
            <th>Address</th>
            <th>On</th>
            <th>Password changed</th>
          </tr>
        </thead>
        <tbody>
          {network.rows.map((row) => (
            <tr key={row.id}>
              <td dir="auto">{row.name}</td>
              <td className="figure">{row.address ?? "—"}</td>
              <td>
                {row.on ?? "—"}
                {row.port ? `, port ${row.port}` : ""}
              </td>
              <td>{row.password_changed ? "yes" : "not yet"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        Store: {store.gb_per_day.toFixed(0)} GB a day
        {store.days ? `, ${store.days} days promised` : ""}
        {store.holds_days ? `, ${store.holds_days.toFixed(0)} days held` : ""}.
      </p>
    </Part>
  );
}

function Settings({ paper }: { paper: Paper }) {
  return (
    <Part title="Settings">
      {paper.settings.map((card) => (
        <table key={`${card.camera} ${card.head}`}>
          <caption dir="auto">
            {card.name} ({card.model})
          </caption>
          <tbody>
            {card.lines.map((line) => (
              <tr key={line.name}>
                <th scope="row">{line.name}</th>
                <td>{line.day}</td>
                <td>{line.night}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </Part>
  );
}

function Notes({ paper, kind }: { paper: Paper; kind: Kind }) {
  const list = (lines: string[]): ReactNode => (
    <ul>
      {lines.map((line) => (
        <li key={line} dir="auto">
          {line}
        </li>
      ))}
    </ul>
  );
  return (
    <>
      <Part title="What it does not do">{list(paper.does_not)}</Part>
      <Part title="Privacy and sound">{list(paper.privacy)}</Part>
      {kind === "handover" && <Part title="Upkeep">{list(paper.upkeep)}</Part>}
      <Part title="Mind">{list(paper.cautions)}</Part>
    </>
  );
}

function SignOff({ paper }: { paper: Paper }) {
  const { agreed } = paper;
  return (
    <Part title="Agreed">
      {agreed ? (
        <>
          <p>
            By <span dir="auto">{agreed.name}</span> on {agreed.date}
            {agreed.promises.length > 0 && "; since then:"}
          </p>
          <ul>
            {agreed.promises.map((promise) => (
              <li key={promise.target}>{promise.says}</li>
            ))}
          </ul>
          <Signature strokes={agreed.signature as Strokes} />
        </>
      ) : (
        <div className="paper-blank">
          <span>Name</span>
          <span>Day</span>
          <span>Signature</span>
        </div>
      )}
    </Part>
  );
}
