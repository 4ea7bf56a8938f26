/** How few cameras do: from the surveyed spots and all models, three answers with what each costs; found by a worker that can be stopped. */
import { App } from "antd";
import { useEffect, useRef, useState } from "react";
import { Refused } from "../../core/errors";
import { type OfferTo, askOffer } from "../../core/offer";
import type { Fewest, FewestAmong, FewestBy, SiteFile } from "../../core/types";
import { takeOver } from "../../keep/rebase";
import { useSettings } from "../../keep/settings";
import { patched } from "../../model/patch";
import { Button } from "../../ui/controls";
import { faultInWords } from "../../ui/place";
import { FEWEST, cameras, nameOfTarget } from "./words";

type Answers = OfferTo<Extract<import("../../core/types").OfferAsk, { ask: "fewest" }>>;
interface Found {
  of: SiteFile;
  answers: Answers | null;
  why: string | null;
}

export function FewestPanel({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const [found, setFound] = useState<Found | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const begin = async (among: FewestAmong): Promise<void> => {
    stop.current?.abort();
    const mine = (stop.current = new AbortController());
    setShare(0);
    setFound(null);
    const priced = [...site.cameras.map((camera) => camera.model.price ?? null), ...(site.prices?.items ?? [])];
    const wishes: FewestBy[] = [priced.some((price) => price !== null) ? "price" : "count", "trips", "back_up"];
    const ask = async (wished: FewestBy[]): Promise<Answers | null> =>
      askOffer(site, { ask: "fewest", among, wishes: wished, units }, mine.signal, (done) => {
        if (!mine.signal.aborted) setShare(done);
      });
    try {
      // Where a price is missing the cheapest cannot be said: the fewest can.
      const answers = await ask(wishes).catch((error: unknown) => {
        if (wishes[0] === "price" && error instanceof Refused) return ask(["count", "trips", "back_up"]);
        throw error;
      });
      if (!mine.signal.aborted) setFound({ of: site, answers, why: null });
    } catch (error) {
      const first = error instanceof Refused ? error.faults[0] : undefined;
      const why = first ? faultInWords(first, site) : (error as Error).message;
      if (!mine.signal.aborted) setFound({ of: site, answers: null, why });
    }
    if (stop.current === mine) setShare(null);
  };
  const spots = site.spots ?? [];
  return (
    <>
      <div className="papers-head">
        <p>
          {spots.length === 0
            ? "The survey has no spot yet: only the cameras of the design can be chosen from."
            : `${spots.length} surveyed ${spots.length === 1 ? "spot" : "spots"}, every model of the catalogue and of your own, each aimed at what it can keep.`}{" "}
          <span className="fine">Cameras that look all around, and PTZ, are laid out at the desk.</span>
        </p>
        {share === null ? (
          <div className="row">
            <Button type="primary" disabled={spots.length === 0} onClick={() => void begin("spots")}>
              Find them
            </Button>
            <Button disabled={site.cameras.length === 0} onClick={() => void begin("present")}>
              Among the design’s own cameras
            </Button>
          </div>
        ) : (
          <div className="row">
            <span role="status">{Math.round(100 * share)} % tried …</span>
            <Button
              onClick={() => {
                stop.current?.abort();
                setShare(null);
              }}
            >
              Stop
            </Button>
          </div>
        )}
      </div>
      {found?.why && (
        <p role="alert" className="verdict-word-broken">
          {found.why}
        </p>
      )}
      {found?.answers && (
        <>
          {found.of !== site && <p className="hint">The site has changed since this was found. Find them again.</p>}
          <ul className="papers-options" data-testid="fewest" data-settled={found.of === site}>
            {found.answers.map((answer) => (
              <Answer key={answer.by} of={found.of} answer={answer} now={site} />
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function Answer({ of, answer, now }: { of: SiteFile; answer: Fewest; now: SiteFile }) {
  const { message } = App.useApp();
  const { title, says } = FEWEST[answer.by];
  const then = patched(of, answer.patch);
  const take = async (): Promise<void> => {
    if (!(await takeOver(`${title}: ${cameras(answer.cameras)}`, of, then)))
      void message.warning("The site has moved on since this was found. Find them again.");
  };
  const spot = (id: string | null | undefined): string =>
    id ? ` at ${(of.spots ?? []).find((one) => one.id === id)?.name ?? id}` : "";
  return (
    <li className="papers-option" data-testid={`fewest-${answer.by}`}>
      <h3>{title}</h3>
      <p className="fine">{says}</p>
      <p className="papers-price figure">{cameras(answer.cameras)}</p>
      <dl className="papers-figures">
        <div>
          <dt>Promises kept</dt>
          <dd className="figure">
            {answer.kept.length} of {of.targets.length}
          </dd>
        </div>
        <div>
          <dt>Put up anew</dt>
          <dd className="figure">{answer.new}</dd>
        </div>
        <div>
          <dt>Kept twice</dt>
          <dd className="figure">{answer.backed_up}</dd>
        </div>
        <div>
          <dt>Cameras cost</dt>
          <dd className="figure">{answer.price === null ? "not all priced" : answer.price.toFixed(2)}</dd>
        </div>
      </dl>
      <p className="fine">
        Of {answer.tried} cameras tried{" "}
        {answer.proved ? "no set does better." : `no set can go under ${answer.bound.toFixed(0)}.`}
      </p>
      <ul className="papers-falls">
        {then.cameras
          .filter((camera) => answer.keep.includes(camera.id))
          .map((camera) => (
            <li key={camera.id}>
              {camera.name}: {camera.model.name}
              {spot(camera.spot)}
            </li>
          ))}
      </ul>
      {answer.cannot.map(({ target, why }) => (
        <p key={target} className="verdict-word-broken">
          {nameOfTarget(of, target)} cannot be kept: {why}
        </p>
      ))}
      <Button
        size="small"
        type="primary"
        disabled={answer.patch.length === 0 || of !== now}
        aria-label={`Take it: ${title}`}
        onClick={() => void take()}
      >
        Take it
      </Button>
    </li>
  );
}
