/** The real picture of a head on this device: held with what was clicked in it, whatever page is opened in between. */
import { useCallback, useEffect, useMemo, useState } from "react";
import { type HeldPicture, dropPicture, heldPicture, holdPicture } from "../../../keep/fitPictures";
import { scaleDown } from "../../../ui/photos/scaleDown";

/** The largest file that is opened, bytes: a larger one is no snapshot. */
const LARGEST = 40 * 1024 * 1024;

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
  take(file: Blob, from: string): Promise<void>;
  /** Waits for work that ends in another picture. */
  awaits(work: () => Promise<void>): Promise<void>;
  say(fault: string): void;
}

export function useRealPicture(site: string, camera: string, head: string): RealPicture {
  const [held, setHeld] = useState<HeldPicture | null>(null);
  const [fault, say] = useState("");
  useEffect(() => {
    let here = true;
    void heldPicture(site, camera, head).then((found) => here && setHeld((now) => now ?? found));
    return () => {
      here = false;
    };
  }, [site, camera, head]);
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
      void holdPicture(site, camera, head, next).then(
        (room) => room || say("This device has no room for the picture: it is here until this page is left."),
      );
    },
    [site, camera, head],
  );
  const drop = useCallback((): void => {
    setHeld(null);
    void dropPicture(site, camera, head);
  }, [site, camera, head]);
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
    async (file: Blob, from: string): Promise<void> => {
      say("");
      if (file.size > LARGEST) {
        say("This file is larger than 40 MB: take a snapshot, or a photo of the monitor.");
        return;
      }
      await awaits(async () => {
        try {
          const { blob: small, width, height } = await scaleDown(file, true);
          put({ blob: small, width, height, from, corners: null, points: [] });
        } catch (error) {
          say(`It ${error instanceof Error ? error.message : String(error)}.`);
        }
      });
    },
    [put, awaits],
  );
  return { held, url, fault, put, drop, coming: coming > 0, take, awaits, say };
}
