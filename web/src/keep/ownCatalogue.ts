/**
 * The firm's own catalogue: on this device, so that it is there without a network, and on the server, where others have it too. A change
 * is made on what stands here now, then sent; who saved in between is put together with, model by model.
 */
import { create } from "zustand";
import { tellStock } from "../core/stock";
import type { KeptCatalogue, MountPart, Stock } from "../core/types";
import { Away, Stale, request } from "./http";
import { read, write } from "./shelf";

/** The catalogue as the server had it last, and what is here that it does not have. */
interface Held {
  number: number;
  base: Stock;
  mine: Stock | null;
  says: string;
}

interface Own {
  stock: Stock;
  /** Whether this device has something that the server does not. */
  unsaved: boolean;
  /** Why it is not sent, in words; empty if all is well. */
  trouble: string;
}

const KEY = "catalogue";
/** How often what was not sent is tried again, ms. */
const AGAIN = 8000;
const NOTHING: Stock = { format: "bright-angle/catalogue", version: 1, models: [] };

export const useOwnCatalogue = create<Own>(() => ({ stock: NOTHING, unsaved: false, trouble: "" }));

// One after another: what is read and written stands in one place for all windows.
let line: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = line.then(work, work);
  line = next.catch(() => undefined);
  return next;
}

const held = async (): Promise<Held> => (await read<Held>(KEY)) ?? { number: 0, base: NOTHING, mine: null, says: "" };

async function put(now: Held, trouble = ""): Promise<void> {
  const there = await write(KEY, now);
  const stock = now.mine ?? now.base;
  tellStock(stock.models);
  useOwnCatalogue.setState({
    stock,
    unsaved: now.mine !== null,
    trouble: there ? trouble : "this device has no room for it",
  });
}

/** Takes over what the server has, or sends what it does not have. */
export const refresh = (): Promise<void> =>
  inTurn(async () => {
    const now = await held();
    await put(now);
    if (now.mine) {
      await send(now);
      return;
    }
    try {
      const { number, catalogue } = await request<KeptCatalogue>("GET", "/api/catalogue/own");
      await put({ number, base: catalogue, mine: null, says: "" });
    } catch (error) {
      if (!(error instanceof Away)) throw error;
    }
  });

/** Changes the catalogue: on this device at once, on the server as soon as it answers. */
export const changeCatalogue = (says: string, change: (stock: Stock) => Stock): Promise<void> =>
  inTurn(async () => {
    const now = await held();
    const next = { ...now, mine: change(now.mine ?? now.base), says: says.slice(0, 200) };
    await put(next);
    await send(next);
  });

async function send(now: Held): Promise<void> {
  let { number, base, mine } = now;
  for (let tries = 0; mine && tries < 5; tries++) {
    try {
      const body = { based_on: number, says: now.says, catalogue: mine };
      const kept = await request<KeptCatalogue>("PUT", "/api/catalogue/own", body);
      await put({ number: kept.number, base: kept.catalogue, mine: null, says: "" });
      return;
    } catch (error) {
      if (error instanceof Stale) {
        const theirs = error.conflict as unknown as KeptCatalogue;
        mine = together(base, mine, theirs.catalogue);
        ({ number, catalogue: base } = theirs);
        await put({ number, base, mine, says: now.says });
      } else if (error instanceof Away) {
        await put({ number, base, mine, says: now.says }, error.message);
        setTimeout(() => void refresh(), AGAIN);
        return;
      } else {
        await put({ number, base, mine, says: now.says }, (error as Error).message);
        return;
      }
    }
  }
}

interface Named {
  name: string;
}

const byName = <One extends Named>(list: One[]): Map<string, One> => new Map(list.map((one) => [one.name, one]));
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Two lists that came from one: each side's changes; what both changed stands there twice, so that nothing is lost. */
function listsTogether<One extends Named>(
  base: One[],
  mine: One[],
  theirs: One[],
  /** The one of this side where both stay. */
  beside: (own: One, name: string) => One,
): One[] {
  const [was, here, there] = [byName(base), byName(mine), byName(theirs)];
  const list: One[] = [];
  for (const [name, one] of there) {
    const own = here.get(name);
    if (same(own, one) || same(own, was.get(name))) list.push(one);
    else if (own === undefined) {
      // Taken out here, and changed there since: it stays.
      if (!same(one, was.get(name))) list.push(one);
    } else if (same(one, was.get(name))) list.push(own);
    else list.push(one, beside(own, another(name, here, there)));
  }
  for (const [name, one] of here) {
    if (there.has(name)) continue;
    // Taken out there, and not changed here: it goes.
    if (!was.has(name) || !same(one, was.get(name))) list.push(one);
  }
  return list;
}

/** Two catalogues that came from one. */
export function together(base: Stock, mine: Stock, theirs: Stock): Stock {
  const models = listsTogether(base.models, mine.models, theirs.models, (own, name) => ({ ...own, name }));
  const mounts = eachWithItsId(
    listsTogether(base.mounts ?? [], mine.mounts ?? [], theirs.mounts ?? [], (own, name) => ({ ...own, name })),
  );
  const currency = mine.currency === base.currency ? theirs.currency : mine.currency;
  const changed = JSON.stringify(mine.prices) !== JSON.stringify(base.prices);
  const prices = changed ? mine.prices : theirs.prices;
  const next: Stock = { ...theirs, ...(currency ? { currency } : {}), models };
  if (prices) next.prices = prices;
  else delete next.prices;
  if (mounts.length > 0) next.mounts = mounts;
  else delete next.mounts;
  return next;
}

/** Parts of mounts in which no two share an id: one that was renamed here and changed there stands there twice. */
export function eachWithItsId(parts: MountPart[]): MountPart[] {
  const taken = new Set<string>();
  return parts.map((part) => {
    let id = part.id;
    for (let number = 2; taken.has(id); number++) id = `${part.id.slice(0, 90)}-${number}`;
    taken.add(id);
    return id === part.id ? part : { ...part, id };
  });
}

function another(name: string, ...taken: Map<string, unknown>[]): string {
  for (let number = 2; ; number++) {
    const next = `${name.slice(0, 190)} (${number})`;
    if (!taken.some((held) => held.has(next))) return next;
  }
}

void refresh().catch(() => undefined);
