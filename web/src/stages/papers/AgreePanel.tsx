/** Sign-off: the client agrees the promises and the expected views; what is otherwise later is shown against it. */
import { Input, Upload } from "antd";
import { useState } from "react";
import { Refused } from "../../core/errors";
import { askOffer } from "../../core/offer";
import type { Against, AgreedBy, SignLink, SiteFile } from "../../core/types";
import { useOffer } from "../../core/useOffer";
import { saveFile } from "../../keep/files";
import { takeOver } from "../../keep/rebase";
import { useSettings } from "../../keep/settings";
import { patched } from "../../model/patch";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { Signature, type Strokes } from "./Signature";
import { LinkPanel } from "./LinkPanel";
import { readSigned, shownMark, signPage } from "./signPage";
import { today } from "./words";

const CHANGED = "The site has changed since that was made: what was signed is not what stands here.";

export function AgreePanel({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const { value, settled } = useOffer(site, { ask: "agreed", units });
  return (
    <div className="papers-agree">
      {(site.agreements ?? []).length > 0 && value && (
        <Told settled={settled} testId="agreed">
          <AgainstNow against={value} />
        </Told>
      )}
      <Sign site={site} again={(site.agreements ?? []).length > 0} />
    </div>
  );
}

function AgainstNow({ against }: { against: Against }) {
  const same = against.promises.length === 0 && against.changes.length === 0;
  return (
    <section aria-label="What was agreed">
      <h3>
        Agreed by {against.name} on {against.date}
        {against.total ? `, for ${against.total}` : ""}
      </h3>
      <Signature strokes={against.signature as Strokes} />
      {same && (
        <p>
          <VerdictMark verdict="kept" size={15} /> Nothing is otherwise than was agreed.
        </p>
      )}
      {against.promises.length > 0 && (
        <>
          <h3>Promises that stand otherwise</h3>
          <ul className="papers-falls">
            {against.promises.map((promise) => (
              <li key={promise.target}>
                {promise.now && <VerdictMark verdict={promise.now} size={14} />} {promise.says}
              </li>
            ))}
          </ul>
        </>
      )}
      {against.changes.length > 0 && (
        <>
          <h3>What was changed since</h3>
          <ul className="papers-falls">
            {against.changes.map((change) => (
              <li key={`${change.thing} ${change.id}`}>
                {change.name}: {change.says}
              </li>
            ))}
          </ul>
        </>
      )}
      {against.total_now && <p>It costs {against.total_now} now.</p>}
    </section>
  );
}

function Sign({ site, again }: { site: SiteFile; again: boolean }) {
  const units = useSettings((settings) => settings.units);
  const [name, setName] = useState(site.brief?.client ?? "");
  const [strokes, setStrokes] = useState<Strokes>([]);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** Keeps what was signed with the site; what is wrong with that in words. */
  const kept = async (by: AgreedBy, who: string, date: string, signature: Strokes): Promise<string | null> => {
    try {
      const signed = { name: who, date, by, signature };
      const patch = await askOffer(site, { ask: "agree", signed }, new AbortController().signal);
      if (!patch) return "The site has moved on meanwhile. Take it again.";
      if (await takeOver(`Agreed by ${who}`.slice(0, 200), site, patched(site, patch))) return null;
      return "The site has moved on meanwhile. Look at it again, and sign then.";
    } catch (error) {
      return error instanceof Refused ? (error.faults[0]?.message ?? "refused") : (error as Error).message;
    }
  };
  const keep = async (by: AgreedBy, who: string, date: string, signature: Strokes): Promise<void> => {
    setBusy(true);
    try {
      const wrong = await kept(by, who, date, signature);
      setFault(wrong);
      if (wrong === null) setStrokes([]);
    } finally {
      setBusy(false);
    }
  };
  const send = async (): Promise<void> => {
    try {
      const page = await signPage(site, units);
      if (page) saveFile(new Blob([page], { type: "text/html" }), `${site.name} to agree`, "html");
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const takeBack = async (file: File): Promise<void> => {
    const read = readSigned(await file.text(), site);
    if ("fault" in read) setFault(read.fault);
    else if (read.of !== (await shownMark(site))) setFault(`${CHANGED} Send a new page.`);
    else await keep("page", read.name, read.date, read.signature);
  };
  const takeLink = async ({ shown, signed_at, signed_name, signature }: SignLink): Promise<string | null> => {
    const [name, date] = [signed_name ?? "", (signed_at ?? "").slice(0, 10)];
    const strokes = (signature ?? []) as Strokes;
    const same = JSON.stringify(strokes);
    // It was taken over, and only the end of the link did not get through.
    if (site.agreements?.some((one) => one.by === "link" && JSON.stringify(one.signature) === same)) return null;
    if (shown !== (await shownMark(site))) return `${CHANGED} Make a new link.`;
    return kept("link", name, date, strokes);
  };
  return (
    <section aria-label="Sign">
      <h3>{again ? "Agree anew" : "Agree"}</h3>
      <p>
        The client has looked at the quote with its views, and agrees what each camera is for and what the design does
        not do. Name, day and signature are kept with the site as it stands now, and shown against whatever changes.
      </p>
      <label className="stacked">
        Who agrees
        <Input value={name} maxLength={300} onChange={(event) => setName(event.target.value)} />
      </label>
      <Signature strokes={strokes} onChange={setStrokes} />
      <div className="row">
        <Button
          type="primary"
          disabled={name.trim() === "" || strokes.length === 0 || busy || site.targets.length === 0}
          onClick={() => void keep("tablet", name.trim(), today(), strokes)}
        >
          Agree
        </Button>
        <Button disabled={strokes.length === 0} onClick={() => setStrokes([])}>
          Sign again
        </Button>
      </div>
      {fault && (
        <p role="alert" className="verdict-word-broken">
          {fault}
        </p>
      )}
      <h3>Somewhere else</h3>
      <p className="fine">
        One page with the promises and views in it, which opens without a network. The client signs on it, saves the
        signed copy and sends it back.
      </p>
      <div className="row">
        <Button onClick={() => void send()}>Save the page to send</Button>
        <Upload
          accept=".json,application/json"
          showUploadList={false}
          beforeUpload={(file) => {
            void takeBack(file);
            return false;
          }}
        >
          <Button>Take a signed copy in</Button>
        </Upload>
      </div>
      <LinkPanel site={site} takeOver={takeLink} />
    </section>
  );
}
