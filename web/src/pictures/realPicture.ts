/** The real picture of a head on this device: held with what was clicked in it, whatever page is opened in between. */
import { useCallback, useEffect, useMemo, useState } from "react";
import { type HeldFor, type HeldPicture, dropPicture, heldPicture, holdPicture } from "../keep/heldPictures";
import { scaleDown } from "../ui/photos/scaleDown";
import { asEvidence } from "./asEvidence";

/** The largest file that is opened, bytes: a larger one is no snapshot. */
const LARGEST = 40 * 1024 * 1024;

/** What is known of a picture as it comes. */
export interface Taken {
  from: string;
  at?: string;
  clockOffS?: number | null;
}

/** Takes the next picture from where the last one came. */
export type Again = () => Promise<Blob>;

export interface RealPicture {
  held: HeldPicture | null;
  /** Its address in this page; null while there is none. */
  url: string | null;
  /** What is wrong, in words. */
  fault: string;
  put(next: HeldPicture): void;
  drop(): void;
  /** Whether another picture is on its way: what is clicked in this one meanwhile would go with it. */
  coming: boolean;
  /** Takes a picture as it came, in place of the one before. */
  take(file: Blob, taken: Taken, again?: Again): Promise<void>;
  /** Takes the next one from where this one came, where that needs nobody; null where it does. */
  again: Again | null;
  /** Waits for work that ends in another picture. */
  awaits(work: () => Promise<void>): Promise<void>;
  say(fault: string): void;
}

/** As evidence (`prove`) a picture is kept to its last byte; to aim by it, it is made small. */
export function useRealPicture(site: string, camera: string, head: string, held_for: HeldFor = "fit"): RealPicture {
  const [held, setHeld] = useState<HeldPicture | null>(null);
  const [fault, say] = useState("");
  const key = useMemo(() => ({ held: held_for, site, camera, head }), [held_for, site, camera, head]);
  useEffect(() => {
    let here = true;
    void heldPicture(key).then((found) => here && setHeld((now) => now ?? found));
    return () => {
      here = false;
    };
  }, [key]);
  const blob = held?.blob ?? null;
  const url = useMemo(() => blob && URL.createObjectURL(blob), [blob]);
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url);
    },
    [url],
  );
  const put = useCallback(
    (next: HeldPicture): void => {
      setHeld(next);
      void holdPicture(key, next).then(
        (room) => room || say("This device has no room for the picture: it is here until this page is left."),
      );
    },
    [key],
  );
  const [again, setAgain] = useState<Again | null>(null);
  const drop = useCallback((): void => {
    setHeld(null);
    setAgain(null);
    void dropPicture(key);
  }, [key]);
  const [coming, setComing] = useState(0);
  const awaits = useCallback(async (work: () => Promise<void>): Promise<void> => {
    setComing((now) => now + 1);
    try {
      await work();
    } finally {
      setComing((now) => now - 1);
    }
  }, []);
  const take = useCallback(
    async (file: Blob, taken: Taken, next?: Again): Promise<void> => {
      say("");
      setAgain(() => next ?? null);
      if (file.size > LARGEST) {
        say("This file is larger than 40 MB: take a snapshot, or a photo of the monitor.");
        return;
      }
      await awaits(async () => {
        try {
          const picture = held_for === "prove" ? await asEvidence(file) : await made(file);
          put({ at: new Date().toISOString(), ...picture, ...taken, corners: null, points: [] });
        } catch (error) {
          say(`It ${error instanceof Error ? error.message : String(error)}.`);
        }
      });
    },
    [put, awaits, held_for],
  );
  return { held, url, fault, put, drop, coming: coming > 0, take, again, awaits, say };
}

/** A picture to aim by: small enough for the device. */
export async function made(file: Blob): Promise<Pick<HeldPicture, "blob" | "width" | "height">> {
  const { blob, width, height } = await scaleDown(file, true);
  return { blob, width, height };
}
