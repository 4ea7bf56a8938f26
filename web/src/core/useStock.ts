/** What the core ships with: the catalogue of models. Asked once. */
import { useEffect, useState } from "react";
import { askAnywhere } from "./port";
import { askAgain } from "./again";
import type { Model } from "./types";

function once<T>(ask: () => Promise<T>): () => T | null {
  let asked: Promise<T> | null = null;
  let known: T | null = null;
  return () => {
    const [found, setFound] = useState<T | null>(known);
    useEffect(() => {
      if (known) return;
      let current = true;
      // Nothing works without it: it is asked for until it is there.
      asked ??= askAgain(ask, () => true);
      asked.then(
        (answer) => {
          known = answer;
          if (current) setFound(answer);
        },
        () => {
          asked = null;
        },
      );
      return () => {
        current = false;
      };
    }, []);
    return found;
  };
}

export const useCatalogue: () => Model[] | null = once(() => askAnywhere({ ask: "catalogue" }));
