/** Route it for me: three answers side by side, each with what it comes to, found by a worker that can be stopped. */
import { App } from "antd";
import { useEffect, useRef, useState } from "react";
import { faultInWords } from "../../ui/place";
import { Refused } from "../../core/errors";
import { WISHES, routed } from "../../core/router";
import type { Routed, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { takeOver } from "../../keep/rebase";
import { useSite } from "../../keep/store";
import { nameOf, networkOf } from "../../model/network";
import { patched } from "../../model/patch";
import { formatLength } from "../../ui/length";
import { Button } from "../../ui/controls";
import { watts } from "./figures";

const WORDS: Record<Routed["wish"], { title: string; says: string }> = {
  cheapest: { title: "Cheapest", says: "least cable, digging and boxes" },
  fewest_aloft: { title: "Fewest cables aloft", says: "least along walls and through the air" },
  least_lost: { title: "Least lost together", says: "fewest cameras behind one box or link" },
};

interface Found {
  /** The state that it was found for. */
  of: SiteFile;
  answers: (Routed | null)[];
  why: string | null;
}

export function RoutePanel({ site }: { site: SiteFile }) {
  const [found, setFound] = useState<Found | null>(null);
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const wired = new Set(
    networkOf(site).cables.flatMap((cable) => (cable.kind === "cord" ? [] : [cable.from, cable.to])),
  );
  const open = site.cameras.filter((camera) => camera.existing !== "goes" && !wired.has(camera.id));
  const begin = async (of: SiteFile): Promise<void> => {
    stop.current?.abort();
    const mine = (stop.current = new AbortController());
    setBusy(true);
    setFound({ of, answers: WISHES.map(() => null), why: null });
    const tell = (change: (held: Found) => Found): void => {
      if (!mine.signal.aborted) setFound((held) => (held?.of === of ? change(held) : held));
    };
    try {
      await routed(
        of,
        (place, answer) =>
          tell((held) => ({ ...held, answers: held.answers.map((now, at) => (at === place ? answer : now)) })),
        mine.signal,
      );
    } catch (error) {
      const first = error instanceof Refused ? error.faults[0] : undefined;
      tell((held) => ({ ...held, why: first ? faultInWords(first, of) : (error as Error).message }));
    }
    if (stop.current === mine) setBusy(false);
  };
  const anew = (): void => {
    // What is wired now is taken off first, but for what was there before; undo brings it back.
    const passes = ["injector", "extender", "repeater"];
    useSite.getState().edit("Take all cables off", (draft) => {
      if (!draft.network) return;
      draft.network.cables = (draft.network.cables ?? []).filter((cable) => cable.existing != null);
      draft.network.nodes = (draft.network.nodes ?? []).filter(
        (node) => node.existing != null || !passes.includes(node.kind),
      );
    });
    const now = useSite.getState().open?.site;
    if (now) void begin(now);
  };
  const done = found?.answers.filter(Boolean).length ?? 0;
  return (
    <div className="wire-route">
      <div className="wire-route-head">
        <p>
          {open.length === 0
            ? "Every camera has a cable."
            : `${open.length} of ${site.cameras.length} cameras are not wired.`}{" "}
          <span className="fine">
            Cables follow drawn ways, walls and ceilings, and cross open ground in a trench. Switches go where there are
            mains: at an outlet, a recorder, a router.
          </span>
        </p>
        {busy ? (
          <>
            <span role="status" className="fine">
              {done} of {WISHES.length} found …
            </span>
            <Button
              size="small"
              onClick={() => {
                stop.current?.abort();
                setBusy(false);
              }}
            >
              Stop
            </Button>
          </>
        ) : (
          <>
            <Button size="small" type="primary" disabled={open.length === 0} onClick={() => void begin(site)}>
              Route it for me
            </Button>
            <Button size="small" onClick={anew}>
              Take all off and route anew
            </Button>
          </>
        )}
      </div>
      {found?.why && (
        <p role="alert" className="verdict-word-broken">
          {found.why}
        </p>
      )}
      {found && !found.why && (
        <ul className="wire-answers" data-testid="route-answers" data-settled={!busy && found.of === site}>
          {WISHES.map((wish, place) => (
            <Answer key={wish} wish={wish} answer={found.answers[place] ?? null} of={found.of} busy={busy} />
          ))}
        </ul>
      )}
    </div>
  );
}

function Answer({
  wish,
  answer,
  of,
  busy,
}: {
  wish: Routed["wish"];
  answer: Routed | null;
  of: SiteFile;
  busy: boolean;
}) {
  const { message } = App.useApp();
  const units = useSettings((settings) => settings.units);
  const { title, says } = WORDS[wish];
  const apply = async (): Promise<void> => {
    if (!answer) return;
    if (!(await takeOver(`Wire it: ${title.toLowerCase()}`, of, patched(of, answer.patch))))
      void message.warning("The site has moved on since this was found. Route it again.");
  };
  return (
    <li className="wire-answer">
      <h3>{title}</h3>
      <p className="fine">{says}</p>
      {answer === null ? (
        <p className="hint">{busy ? "Looking …" : "Stopped."}</p>
      ) : (
        <>
          <dl className="wire-figures">
            <Figure
              name={answer.priced ? "Costs" : "Metres and boxes"}
              value={answer.priced ? answer.costs.toFixed(0) : formatLength(answer.costs, units, 0)}
            />
            <Figure name="New cable" value={formatLength(answer.metres, units, 0)} />
            <Figure name="Walls and air" value={formatLength(answer.aloft_m, units, 0)} />
            <Figure name="New boxes" value={String(answer.boxes)} />
            <Figure name="Power" value={watts(answer.watts)} />
            <Figure name="Lost with one" value={`${answer.lost_most} camera${answer.lost_most === 1 ? "" : "s"}`} />
          </dl>
          <p className="fine">
            {answer.gap === 0
              ? "Nothing better is possible with these ways and places."
              : `At most ${(answer.gap * 100).toFixed(answer.gap < 0.01 ? 2 : 0)} % from the best.`}
            {!answer.priced && " Prices are not all known: ranked by metres and boxes."}
          </p>
          {answer.unmet.map((unmet) => (
            <p key={unmet.camera} className="verdict-word-broken">
              {nameOf(of, unmet.camera)}: {unmet.why}
            </p>
          ))}
          <Button
            type="primary"
            size="small"
            disabled={answer.patch.length === 0}
            aria-label={`Take it: ${title}`}
            onClick={() => void apply()}
          >
            Take it
          </Button>
        </>
      )}
    </li>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="figure">{value}</dd>
    </div>
  );
}
