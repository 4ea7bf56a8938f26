/** What was clicked once is found again in the next picture of a head that is being turned: with a press, or as long as it is followed. */
import { useEffect, useRef, useState } from "react";
import { comparer } from "../../../core/comparer";
import { Refused } from "../../../core/errors";
import type { Point } from "../../../core/types";
import type { Clicked, HeldPicture } from "../../../keep/heldPictures";
import { type RealPicture, made } from "../../../pictures/realPicture";
import type { Size } from "../../../pictures/shape";
import { Button, Switch } from "../../../ui/controls";

/** Fewer say nothing of how it hangs. */
const LEAST = 3;
/** The pictures are looked at so wide, px: points are found again to about one of these (ours). */
const LOOKED_AT_PX = 640;

interface Props {
  real: RealPicture;
  sensor: Size;
  /** The field across; null while it is not known. */
  hfovDeg: number | null;
}

export function Follow({ real, sensor, hfovDeg }: Props) {
  const { held } = real;
  // The last picture with enough crosses, and the last in which a hand put them: what comes next is held against that, so that small
  // misses do not add up; once it is turned too far for it, against the other.
  const [last, setLast] = useState<HeldPicture | null>(null);
  const [clicked, setClicked] = useState<HeldPicture | null>(null);
  if (held && held !== last && held.points.length >= LEAST) {
    setLast(held);
    if (held.foundTo === undefined) setClicked(held);
  }
  const [follows, setFollows] = useState(false);
  const [says, setSays] = useState("");
  const following = useFollowing({
    real,
    sensor,
    hfovDeg,
    bases: [clicked, last],
    follows,
    onSays: setSays,
    onEnd: () => setFollows(false),
  });
  if (!last || hfovDeg === null || last.corners) return null;
  const fresh = held !== null && held.points.length === 0 && held.blob !== last.blob && !held.corners;
  const bring = (): Promise<void> =>
    real.awaits(async () => {
      if (held) setSays(await following.carryTo(held, held, new AbortController().signal));
    });
  return (
    <div className="fit-follow">
      {fresh && !follows && (
        <Button size="small" loading={real.coming} onClick={() => void bring()}>
          Bring the crosses along
        </Button>
      )}
      {real.again && (
        <label className="switch-line">
          <Switch
            size="small"
            checked={follows}
            onChange={(on) => {
              setSays("");
              setFollows(on);
            }}
          />{" "}
          Follow it while it is turned
        </label>
      )}
      {says && (
        <p role="status" className="fine" data-testid="fit-follow">
          {says}
        </p>
      )}
    </div>
  );
}

function useFollowing({
  real,
  sensor,
  hfovDeg,
  bases,
  follows,
  onSays,
  onEnd,
}: Props & { bases: (HeldPicture | null)[]; follows: boolean; onSays(says: string): void; onEnd(): void }) {
  const now = useRef({ real, onSays, onEnd });
  const carry = useRef<(next: HeldPicture, held: HeldPicture, signal: AbortSignal) => Promise<string>>(null);
  /** The crosses of an earlier picture in another one. */
  const from = async (base: HeldPicture, later: Blob, field: number, signal: AbortSignal): Promise<Clicked[]> => {
    const points = base.points.map(({ u, v }): Point => [u / sensor.width_px, v / sensor.height_px]);
    const reference = { name: nameOf(base.blob), blob: base.blob };
    const found = await comparer.carried({ reference, later, hfovDeg: field, points }, signal);
    return base.points.flatMap(({ id }, place) => {
      const at = found?.[place];
      return at ? [{ id, u: at[0] * sensor.width_px, v: at[1] * sensor.height_px }] : [];
    });
  };
  /** Puts the crosses into another picture while `held` is still the one in hand; answers what came of it, in words. */
  const carryTo = async (next: HeldPicture, held: HeldPicture, signal: AbortSignal): Promise<string> => {
    if (hfovDeg === null) return "";
    try {
      for (const base of bases) {
        if (!base || base.corners) continue;
        const kept = await from(base, next.blob, hfovDeg, signal);
        // Whoever clicked meanwhile knows better.
        if (signal.aborted || now.current.real.held !== held) return "";
        if (kept.length < LEAST) continue;
        real.put({ ...next, points: kept, foundTo: Math.max(base.foundTo ?? 0, hfovDeg / LOOKED_AT_PX) });
        const [lost, all] = [base.points.length - kept.length, base.points.length];
        return lost === 0 ? "All crosses are found again." : `${lost} of ${all} crosses are not found again.`;
      }
      return "The crosses are not found again in this picture: click them.";
    } catch (error) {
      const why = error instanceof Refused ? error.faults[0]?.message : (error as Error).message;
      return `The crosses stay behind: it ${why ?? "is refused"}.`;
    }
  };
  useEffect(() => {
    now.current = { real, onSays, onEnd };
    carry.current = carryTo;
  });
  useEffect(() => {
    if (!follows) return;
    const stop = new AbortController();
    const ended = (): boolean => stop.signal.aborted;
    void (async () => {
      while (!ended()) {
        const { again, held } = now.current.real;
        // Thrown away, or from somewhere else by now: nothing is followed any more.
        if (!again || !held) {
          now.current.onEnd();
          return;
        }
        try {
          const picture = await made(await again());
          if (ended()) return;
          const next: HeldPicture = { ...held, ...picture, at: new Date().toISOString(), corners: null, points: [] };
          now.current.onSays((await carry.current?.(next, held, stop.signal)) ?? "");
        } catch (error) {
          now.current.onSays(`No picture came: ${error instanceof Error ? error.message : String(error)}`);
          // Whoever does not answer is asked again in a while.
          await pause(stop.signal);
        }
        await shown(stop.signal);
      }
    })();
    return () => stop.abort();
  }, [follows]);
  return { carryTo };
}

/** So long nobody is asked who did not answer, ms. */
const PAUSE = 3_000;

const pause = (signal: AbortSignal): Promise<void> =>
  new Promise((settle) => {
    const timer = setTimeout(settle, PAUSE);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      settle();
    });
  });

/** Waits until the page is looked at: nobody follows what he does not see. */
const shown = (signal: AbortSignal): Promise<void> =>
  new Promise((settle) => {
    const look = (): void => {
      if (document.visibilityState !== "visible" && !signal.aborted) return;
      document.removeEventListener("visibilitychange", look);
      settle();
    };
    document.addEventListener("visibilitychange", look);
    signal.addEventListener("abort", look, { once: true });
    look();
  });

/** A name for each picture of this page. */
const names = new WeakMap<Blob, string>();
let named = 0;
function nameOf(blob: Blob): string {
  const name = names.get(blob) ?? `held-${++named}`;
  names.set(blob, name);
  return name;
}
