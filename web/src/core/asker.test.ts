import { describe, expect, it } from "vitest";
import { Asker, type Heard, type Wish } from "./asker";
import { Dropped, Refused } from "./errors";
import type { Fault, SiteFile } from "./types";

const site = (name: string): SiteFile => ({
  format: "bright-angle/site",
  version: 1,
  name,
  obstacles: [],
  targets: [],
  cameras: [],
});

/** An asker whose questions are answered by hand. */
function asking() {
  const heard: Heard<string>[] = [];
  const faults: Fault[][] = [];
  const asker = new Asker<string>(
    0,
    (one) => heard.push(one),
    (one) => faults.push(one.faults),
  );
  const open: { answer(value: string): void; refuse(error: Error): void; soFar(value: string): boolean }[] = [];
  const wish = (name: string): Wish<string> => ({
    site: site(name),
    question: "q",
    ask: (_, soFar) => new Promise((answer, refuse) => open.push({ answer, refuse, soFar })),
  });
  return { asker, heard, faults, open, wish };
}
const turn = (): Promise<void> => new Promise((done) => setTimeout(done, 0));

describe("a panel's question", () => {
  it("is asked one at a time under a hand, the newest next, and told with the state that it is of", async () => {
    const { asker, heard, open, wish } = asking();
    const [a, b, c] = [wish("A"), wish("B"), wish("C")];
    asker.askNow(a)();
    asker.askNow(b)();
    asker.askNow(c);
    open[0]?.answer("of A");
    await turn();
    open[1]?.answer("of C");
    await turn();
    expect(open.length).toBe(2);
    expect(heard.map(({ wish: of, value, whole }) => [of.site.name, value, whole])).toEqual([
      ["A", "of A", true],
      ["C", "of C", true],
    ]);
  });

  it("is told part by part as long as somebody waits, and ends for who does not", () => {
    const { asker, heard, open, wish } = asking();
    const leave = asker.askNow(wish("A"));
    expect(open[0]?.soFar("half")).toBe(true);
    leave();
    expect(open[0]?.soFar("more")).toBe(false);
    expect(heard.map(({ value, whole }) => [value, whole])).toEqual([["half", false]]);
  });

  it("says the faults of a site that makes no sense, and nothing of what was dropped", async () => {
    const { asker, heard, faults, open, wish } = asking();
    asker.askNow(wish("A"));
    const said = [{ path: "cameras[0].height_m", message: "is outside" }];
    open[0]?.refuse(new Refused(said));
    await turn();
    asker.askNow(wish("B"));
    open[1]?.refuse(new Dropped());
    await turn();
    expect([faults, heard]).toEqual([[said], []]);
  });

  it("at rest is not asked for a state that was left before", async () => {
    const { asker, heard, open, wish } = asking();
    asker.askAtRest(wish("A"), 1)();
    asker.askAtRest(wish("B"), 1);
    await expect.poll(() => open.length).toBe(1);
    open[0]?.answer("of B");
    await turn();
    expect(heard.map(({ wish: of }) => of.site.name)).toEqual(["B"]);
  });
});
