/** What is kept of walk tests, pictures and visits, each as one step that can be undone. */
import type { HeadRef, Hung, Proof, SiteFile, Snapshot, StepHow, UpkeepVisit } from "../../core/types";
import type { HeldPicture } from "../../keep/heldPictures";
import { useSite } from "../../keep/store";

/** How a step may be called at most, characters. */
const LONGEST = 200;

/** An id that no other window makes, too. */
export const freshKey = (of: string): string => `${of}-${crypto.getRandomValues(new Uint32Array(2)).join("-")}`;

const edit = (says: string, recipe: (site: SiteFile) => void): void =>
  useSite.getState().edit(says.slice(0, LONGEST), recipe);

export const keepProof = (proof: Proof, name: string): void =>
  edit(`Walk test: ${name}`, (site) => {
    site.proofs = [...(site.proofs ?? []), proof];
  });

export const dropProof = (id: string, name: string): void =>
  edit(`Take a walk test back: ${name}`, (site) => {
    site.proofs = (site.proofs ?? []).filter((one) => one.id !== id);
  });

/** A picture of a head as it is kept with the site. */
export function snapshotOf(
  { head, night, by, hung }: { head: HeadRef; night: boolean; by: string; hung: Hung },
  picture: Pick<HeldPicture, "width" | "height" | "at" | "clockOffS"> & { name: string },
  against: Snapshot["against"],
): Snapshot {
  const { name, width, height, at, clockOffS } = picture;
  return {
    id: freshKey("shot"),
    ...head,
    at: at ?? new Date().toISOString(),
    ...(by ? { by } : {}),
    ...(night ? { night } : {}),
    picture: { picture: name, width_px: width, height_px: height },
    hung,
    ...(clockOffS === null || clockOffS === undefined ? {} : { clock_off_s: clockOffS }),
    ...(against ? { against } : {}),
  };
}

export const keepSnapshot = (snapshot: Snapshot, name: string): void =>
  edit(`${snapshot.against ? "Keep a picture" : "Keep the reference"}: ${name}`, (site) => {
    site.snapshots = [...(site.snapshots ?? []), snapshot];
  });

export const dropSnapshot = (id: string, name: string): void =>
  edit(`Take a picture back: ${name}`, (site) => {
    site.snapshots = (site.snapshots ?? []).filter((one) => one.id !== id);
  });

/** Begins a visit; answers its id. */
export function beginVisit(date: string, by: string): string {
  const id = freshKey("visit");
  edit(`Visit of ${date}`, (site) => {
    site.visits = [...(site.visits ?? []), { id, date, ...(by ? { by } : {}) }];
  });
  return id;
}

/** Changes a visit. */
export const changeVisit = (id: string, says: string, recipe: (visit: UpkeepVisit) => void): void =>
  edit(says, (site) => {
    const visit = site.visits?.find((one) => one.id === id);
    if (visit) recipe(visit);
  });

/** Notes what became of something due; null takes that back. */
export const note = (visit: string, item: { id: string; says: string }, how: StepHow | null): void =>
  changeVisit(visit, how === null ? "Take a tick back" : "Tick what was due", (held) => {
    const others = (held.done ?? []).filter((one) => one.id !== item.id);
    const before = held.done?.find((one) => one.id === item.id);
    held.done =
      how === null
        ? others
        : [
            ...others,
            {
              ...before,
              id: item.id,
              says: item.says.slice(0, 400),
              at: new Date().toISOString(),
              ...(how === "done" ? { how: "done" } : { how }),
            },
          ];
  });
