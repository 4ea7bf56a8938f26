/** Rasters of a site: its relief, and how many see each cell of the ground. */
import { reliefHands } from "./hands";
import type { Reply } from "./messages";
import { run, told } from "./port";
import type { AnswerTo, GroundWish, ReliefWish, SiteFile } from "./types";

/** The best density of each cell of a grid. */
export interface Raster {
  wish: ReliefWish;
  columns: number;
  rows: number;
  /** px/m, rows from south to north; zero where no head sees. */
  values: Float32Array;
}

/** The relief of a site; null if something newer was wished before it was done. The slot keeps what is worked out for the next time. */
export async function relief(site: SiteFile, wish: ReliefWish, slot: 0 | 1, sheet: 0 | 1 = 0): Promise<Raster | null> {
  const hands = reliefHands[sheet];
  const replies = await Promise.all(
    hands.map((follower, hand) => follower.run(site, { relief: { wish, slot, hand, hands: hands.length } })),
  );
  return merged(wish, replies);
}

function merged(wish: ReliefWish, replies: Reply[]): Raster | null {
  const [first, ...others] = replies;
  if (!first?.best || replies.some((reply) => reply.dropped || !reply.best)) return null;
  const values = first.best;
  for (const { best } of others)
    if (best)
      for (let cell = 0; cell < values.length; cell++)
        if ((best[cell] ?? 0) > (values[cell] ?? 0)) values[cell] = best[cell] ?? 0;
  const columns = Math.max(Math.ceil((wish.east - wish.west) / wish.cell - 1e-9), 1);
  return { wish, columns, rows: values.length / columns, values };
}

/** What is told about the ground, with how many see each of its cells, rows from south to north. */
export interface GroundTold {
  told: AnswerTo<{ ask: "ground"; wish: GroundWish }>;
  counts: Uint8Array;
}

/** What the relief tells about the ground, and how many see each cell of it. */
export async function groundWithCounts(site: SiteFile, wish: GroundWish): Promise<GroundTold> {
  const reply = await run(site, { ask: { ask: "ground", wish }, counts: wish.need_px_per_m }, "surveyor");
  return { told: told(reply.answer ?? "null"), counts: reply.counts ?? new Uint8Array() };
}
