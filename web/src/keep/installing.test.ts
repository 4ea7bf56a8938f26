import { expect, test, vi } from "vitest";
import { keepInstalling } from "./installing";

/** A worker under way, whose state the test turns. */
class Worker extends EventTarget {
  state = "installing";

  becomes(state: string): void {
    this.state = state;
    this.dispatchEvent(new Event("statechange"));
  }
}

interface Stands {
  active: Worker | null;
  waiting: Worker | null;
  installing: Worker | null;
}

const registration = (stands: Partial<Stands>): Stands & ServiceWorkerRegistration =>
  ({ active: null, waiting: null, installing: null, ...stands }) as never;

/** What is waited for, and what is registered. */
function set(): {
  register: ReturnType<typeof vi.fn>;
  refused: ReturnType<typeof vi.fn>;
  waits: number[];
  pass: () => Promise<void>;
  keep: ReturnType<typeof keepInstalling>;
} {
  const register = vi.fn();
  const refused = vi.fn();
  const waits: number[] = [];
  let next: (() => void) | null = null;
  const later = (act: () => void, ms: number): void => {
    waits.push(ms);
    next = act;
  };
  const keep = keepInstalling({ workers: { register }, url: "/sw.js", onRefused: refused, later });
  const pass = async (): Promise<void> => {
    next?.();
    next = null;
    await Promise.resolve();
    await Promise.resolve();
  };
  return { register, refused, waits, pass, keep };
}

test("an installing that breaks off is begun again until one stands", async () => {
  const { register, waits, pass, keep } = set();
  const [first, second] = [new Worker(), new Worker()];
  keep.registered(registration({ installing: first }));
  first.becomes("redundant");
  expect(waits).toEqual([2_000]);
  const stands = registration({ installing: second });
  register.mockResolvedValue(stands);
  await pass();
  expect(register).toHaveBeenCalledExactlyOnceWith("/sw.js");
  second.becomes("installed");
  Object.assign(stands, { active: second, installing: null });
  second.becomes("activated");
  // A later version takes its place: nothing is to be done.
  second.becomes("redundant");
  expect(waits).toEqual([2_000]);
});

test("a server that is away is asked ever less often, and no less than once a minute", async () => {
  const { register, refused, waits, pass, keep } = set();
  register.mockRejectedValue(new TypeError("no answer"));
  keep.failed(new TypeError("no answer"));
  for (let times = 0; times < 7; times++) await pass();
  expect(waits).toEqual([2_000, 4_000, 8_000, 16_000, 32_000, 60_000, 60_000, 60_000]);
  expect(refused).not.toHaveBeenCalled();
});

test("what the browser refuses for good is told and not asked for again", () => {
  const { refused, waits, keep } = set();
  keep.failed(new DOMException("An SSL certificate error occurred", "SecurityError"));
  expect(refused).toHaveBeenCalledOnce();
  expect(waits).toEqual([]);
});

test("where workers are blocked there is nothing to wait for", async () => {
  const { register, waits, pass, keep } = set();
  register.mockResolvedValue(undefined);
  keep.failed(new TypeError("undefined has no state"));
  await pass();
  expect(waits).toEqual([2_000]);
});

test("one that stands already is left alone", () => {
  const { waits, keep } = set();
  const newer = new Worker();
  keep.registered(registration({ active: new Worker(), installing: newer }));
  newer.becomes("redundant");
  expect(waits).toEqual([]);
});
