/**
 * The one door to the computation: the core, compiled for the browser, in workers of its own. One follows the hand; a few
 * share the relief; one thinks about ways and is stopped when its question is out of date.
 */
import { makeWorker } from "./coreWorker";
import { Fallen } from "./errors";
import { Follower } from "./follower";
import type { Reply, ReliefWish } from "./messages";
import type {
  Aim,
  Ask,
  Camera,
  Card,
  Choice,
  Difference,
  FirstAnswer,
  Ground,
  GroundWish,
  Guide,
  HeadRef,
  Line,
  LinkFound,
  Lost,
  LightTold,
  Masked,
  Mends,
  Merged,
  Model,
  OtherState,
  PatchOp,
  PictureTold,
  PictureUse,
  PictureWays,
  PictureWish,
  Point,
  ReadCsv,
  Reading,
  SchoolTold,
  SideBySide,
  Sights,
  SiteFile,
  StartSettings,
  SunAt,
  SunCalendar,
  SunHours,
  Survey,
  TakenShot,
  Task,
  Tours,
  Units,
  Ways,
  Why,
  WorldFile,
} from "./types";

/** How many workers share a relief: one core is left for the hand and the screen. */
const RELIEF_HANDS = Math.min(
  Math.max((typeof navigator === "undefined" ? 2 : navigator.hardwareConcurrency) - 1, 1),
  3,
);

const hand = new Follower(makeWorker);
const thinker = new Follower(makeWorker);
/** Tells about the ground, pictures and designs: what may take a blink longer than the hand waits. */
const surveyor = new Follower(makeWorker);
const reliefHands = Array.from({ length: RELIEF_HANDS }, () => new Follower(makeWorker));
/** Works out the relief of a second sheet, where two designs lie side by side; started when it is first asked. */
const secondSheet = [new Follower(makeWorker)];

/** Knows the sun's year; started when somebody asks about it. */
const almanac = new Follower(makeWorker);

/**
 * Work out pictures, each started when one of its is first looked at: the view and its loupe, those beside them, and what is
 * made to be kept.
 */
const viewers = {
  view: new Follower(makeWorker),
  loupe: new Follower(makeWorker),
  left: new Follower(makeWorker),
  leftLoupe: new Follower(makeWorker),
  right: new Follower(makeWorker),
  rightLoupe: new Follower(makeWorker),
  keep: new Follower(makeWorker),
  keepMore: new Follower(makeWorker),
  sheet: new Follower(makeWorker),
};
/** Which of them works on what. */
export type Slot = keyof typeof viewers;
/** Large pictures are made one after the other: two at once would take the workers from each other. */
let large: Promise<unknown> = Promise.resolve();
/** How many rows of a large picture a worker takes at a time. */
const BAND = 48;

/** Gets the core ready before it is needed. */
export function startCore(): void {
  hand.start();
  for (const relief of reliefHands) relief.start();
  thinker.start();
}

async function ask<T>(site: SiteFile, question: Ask, follower = hand): Promise<T> {
  const run = (): Promise<Reply> => follower.run(site, { asks: [question] });
  // What fell over is started anew and asked once more at once; who goes on asking after that waits in between.
  const reply = await run().catch((error: unknown) => {
    if (error instanceof Fallen) return run();
    throw error;
  });
  return JSON.parse(reply.answers[0] ?? "null") as T;
}

/** A site of nothing, for questions that are about none. */
const NO_SITE: SiteFile = {
  format: "bright-angle/site",
  version: 1,
  name: "No site",
  obstacles: [],
  targets: [],
  cameras: [],
};

/** What is told about the ground, with how many see each of its cells, rows from south to north. */
export interface GroundTold {
  told: Ground;
  counts: Uint8Array;
}

/** A picture: its pixels, and what it shows. */
export interface PictureShown {
  told: PictureTold;
  /** Red, green, blue and opacity, from the top left. */
  rgba: Uint8Array;
}

/** The best density of each cell of a grid, with the state of the site that it is of. */
export interface Raster {
  wish: ReliefWish;
  columns: number;
  rows: number;
  /** px/m, rows from south to north; zero where no head sees. */
  values: Float32Array;
}

export const core = {
  sights: (site: SiteFile, target: string | null, head: HeadRef | null): Promise<Sights> =>
    ask(site, { ask: "sights", target, head }),
  survey: (site: SiteFile): Promise<Survey> => ask(site, { ask: "survey" }),
  firstAnswer: (
    site: SiteFile,
    asked: { slant_m: number; spot_height_m: number; target_height_m: number; task: Task },
  ): Promise<FirstAnswer> => ask(site, { ask: "first_answer", ...asked }),
  reading: (site: SiteFile, shot: TakenShot): Promise<Reading> => ask(site, { ask: "reading", shot }),
  readReadings: (site: SiteFile, csv: string): Promise<ReadCsv> => ask(site, { ask: "read_readings", csv }),
  writeReadings: (site: SiteFile): Promise<string> => ask(site, { ask: "write_readings" }),
  worldFile: (site: SiteFile, text: string, share: number): Promise<WorldFile> =>
    ask(site, { ask: "world_file", text, share }),
  aim: (site: SiteFile, line: Line): Promise<Aim> => ask(site, { ask: "aim", line }),
  slant: (site: SiteFile, line: Line, slant_m: number): Promise<Point[]> =>
    ask(site, { ask: "slant", camera: line.camera, target: line.target, slant_m }),
  model: (site: SiteFile, camera: string, model: string): Promise<Camera> => ask(site, { ask: "model", camera, model }),
  newCamera: (site: SiteFile, at: Point, reach_m: number, target: string | null): Promise<Camera> =>
    ask(site, { ask: "new_camera", at, reach_m, target }),
  /** What is different in `after`, in words. */
  compare: (before: SiteFile, after: SiteFile, units: Units): Promise<Difference[]> =>
    ask(after, { ask: "compare", before, units }),
  merge: (mine: SiteFile, base: SiteFile, theirs: SiteFile, choices: Choice[], units: Units): Promise<Merged> =>
    ask(mine, { ask: "merge", base, theirs, choices, units }),
  /** What the relief tells about the ground, and how many see each cell of it. */
  async ground(site: SiteFile, wish: GroundWish): Promise<GroundTold> {
    const asked = { wish: JSON.stringify(wish), counts: true, need: wish.need_px_per_m };
    const reply = await surveyor.run(site, { asks: [], ground: asked });
    return { told: JSON.parse(reply.ground ?? "null") as Ground, counts: reply.counts ?? new Uint8Array() };
  },
  why: (site: SiteFile, at: Point, height_m: number, need_px_per_m: number, units: Units): Promise<Why> =>
    ask(site, { ask: "why", at, height_m, need_px_per_m, units }),
  lost: (site: SiteFile): Promise<Lost[]> => ask(site, { ask: "lost" }, surveyor),
  /** How a head is aimed on the ladder. */
  card: (site: SiteFile, head: HeadRef): Promise<Card> => ask(site, { ask: "card", head }, surveyor),
  /** What must be masked of each head's picture. */
  masks: (site: SiteFile): Promise<Masked[]> => ask(site, { ask: "masks" }, surveyor),
  /** Where a plate on its way reads by each school. */
  schools: (site: SiteFile, line: Line): Promise<SchoolTold[]> => ask(site, { ask: "schools", line }, surveyor),
  /** The light of a night, and what of each picture washes out. */
  light: (site: SiteFile): Promise<LightTold> => ask(site, { ask: "light" }, surveyor),
  washedWays: (site: SiteFile, head: HeadRef, units: Units): Promise<Mends> =>
    ask(site, { ask: "washed_ways", head, units }, surveyor),
  /** What a plate camera is set to on the first evening. */
  startSettings: (site: SiteFile, head: HeadRef, date: string, units: Units): Promise<StartSettings[]> =>
    ask(site, { ask: "start_settings", head, date, units }, surveyor),
  startSettingsCsv: (site: SiteFile, head: HeadRef, date: string, units: Units): Promise<string> =>
    ask(site, { ask: "start_settings_csv", head, date, units }, surveyor),
  sunAt: (site: SiteFile, head: HeadRef, date: string, minute: number): Promise<SunAt> =>
    ask(site, { ask: "sun_at", head, date, minute }),
  async sunCalendar(site: SiteFile, head: HeadRef, target: string | null, year: number): Promise<SunCalendar> {
    const asked = { what: "calendar", head: JSON.stringify(head), target, year } as const;
    const reply = await almanac.run(site, { asks: [], sun: asked });
    return JSON.parse(reply.sun ?? "null") as SunCalendar;
  },
  async sunWays(site: SiteFile, head: HeadRef, year: number, units: Units): Promise<Mends> {
    const asked = { what: "ways", head: JSON.stringify(head), units: JSON.stringify(units), year } as const;
    const reply = await almanac.run(site, { asks: [], sun: asked });
    return JSON.parse(reply.sun ?? "null") as Mends;
  },
  /** Some more hours of the sun in the pictures of all heads; `begin` anew, else on from where it stopped. */
  async sunHours(site: SiteFile, year: number, begin: boolean): Promise<{ hours: SunHours[]; done: boolean }> {
    const reply = await almanac.run(site, { asks: [], sun: { what: "hours", year, begin } });
    return { hours: JSON.parse(reply.sun ?? "[]") as SunHours[], done: reply.sunDone ?? true };
  },
  otherStates: (site: SiteFile): Promise<OtherState[]> => ask(site, { ask: "other_states" }, surveyor),
  pictureUse: (site: SiteFile, head: HeadRef): Promise<PictureUse> => ask(site, { ask: "picture_use", head }, surveyor),
  pictureWays: (site: SiteFile, head: HeadRef, units: Units): Promise<PictureWays> =>
    ask(site, { ask: "picture_ways", head, units }, surveyor),
  tours: (site: SiteFile, event_s: number): Promise<Tours> => ask(site, { ask: "tours", event_s }),
  linkOf: (site: SiteFile, camera: string, head: string): Promise<LinkFound> =>
    ask(site, { ask: "link_of", camera, head }),
  pointThrough: (site: SiteFile, camera: string, head: string, pixel: Point): Promise<[number, number]> =>
    ask(site, { ask: "point_through", camera, head, pixel }),
  spread: (site: SiteFile, camera: string, over_deg: number): Promise<Camera> =>
    ask(site, { ask: "spread", camera, over_deg }),
  designs: (site: SiteFile, left: string | null, right: string | null, wish: GroundWish): Promise<SideBySide> =>
    ask(site, { ask: "designs", left, right, wish }, surveyor),
  adopt: (site: SiteFile, design: string): Promise<PatchOp[]> => ask(site, { ask: "adopt", design }),
  catalogue: (): Promise<Model[]> => ask(hand.site ?? NO_SITE, { ask: "catalogue" }),
  guide: (): Promise<Guide> => ask(hand.site ?? NO_SITE, { ask: "guide" }),

  /** The ways to keep a sight line; null if something newer was asked before they were found. */
  async ways(site: SiteFile, line: Line, units: Units): Promise<Ways | null> {
    if (thinker.busy) thinker.stop();
    const reply = await thinker.run(site, { asks: [{ ask: "ways", line, units }] });
    return reply.dropped ? null : (JSON.parse(reply.answers[0] ?? "null") as Ways);
  },

  /** Stops thinking about ways, whose answer nobody waits for any more. */
  dropWays(): void {
    if (thinker.busy) thinker.stop();
  },

  /** The picture of a head; null if something newer was wished before it was done. Pictures in different slots do not wait for each other. */
  async picture(site: SiteFile, head: HeadRef, wish: PictureWish, slot: Slot): Promise<PictureShown | null> {
    const { drawing } = site;
    const overhead = drawing?.metres_per_px ? drawing.picture : null;
    const asked = { head: JSON.stringify(head), wish: JSON.stringify(wish), overhead };
    const reply = await viewers[slot].run(site, { asks: [], picture: asked });
    return reply.rgba && reply.told ? { told: JSON.parse(reply.told) as PictureTold, rgba: reply.rgba } : null;
  },

  /** A large picture, band by band over two workers; `onShare` hears how much of it is done. */
  largePicture(...of: Parameters<typeof makeLarge>): Promise<ImageData> {
    const made = large.then(() => makeLarge(...of));
    large = made.catch(() => undefined);
    return made;
  },

  /** The relief of a site; null if something newer was wished before it was done. The slot keeps what is worked out for the next time. */
  async relief(site: SiteFile, wish: ReliefWish, slot: 0 | 1, sheet: 0 | 1 = 0): Promise<Raster | null> {
    const hands = sheet === 0 ? reliefHands : secondSheet;
    const replies = await Promise.all(
      hands.map((follower, place) =>
        follower.run(site, { asks: [], relief: { wish, slot, hand: place, hands: hands.length } }),
      ),
    );
    return merged(wish, replies);
  },
};

async function makeLarge(
  site: SiteFile,
  head: HeadRef,
  wish: Omit<PictureWish, "window">,
  { width, height }: { width: number; height: number },
  onShare: (share: number) => void,
): Promise<ImageData> {
  const whole = new ImageData(width, height);

  let next = 0;
  let done = 0;
  const work = async (slot: Slot): Promise<void> => {
    while (next < height) {
      const from = next;
      next = Math.min(next + BAND, height);
      const band: PictureWish = { ...wish, window: { band: { width, from, to: next } } };
      const got = await core.picture(site, head, band, slot);
      if (!got) throw new Error("another picture was begun");
      whole.data.set(got.rgba, from * width * 4);
      done += got.told.frame.height;
      onShare(done / height);
    }
  };
  await Promise.all([work("keep"), work("keepMore")]);
  return whole;
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
