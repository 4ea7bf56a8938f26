/** What fell over is asked again, later and later. */
import { Fallen } from "./errors";

const FIRST = 500;
const LONGEST = 8000;

/** How long to wait before the next try, ms, after so many in vain. */
export const waitAfter = (tries: number): number => Math.min(FIRST * 2 ** Math.max(tries - 1, 0), LONGEST);

/** Asks until there is an answer or a refusal, as long as somebody waits for it. */
export async function askAgain<T>(ask: () => Promise<T>, wanted: () => boolean): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof Fallen) || !wanted()) throw error;
      await new Promise((later) => setTimeout(later, waitAfter(tries)));
      if (!wanted()) throw error;
    }
  }
}
