import { describe, expect, it } from "vitest";
import { Fallen, Refused } from "./errors";
import { Follower, type WorkerLike } from "./follower";
import type { Reply, Request } from "./messages";
import { stockNow, tellStock } from "./stock";
import { useCoreState } from "./state";
import { siteChange } from "./siteChange";
import type { Model, SiteChange, SiteFile } from "./types";

const empty: SiteFile = {
  format: "bright-angle/site",
  version: 1,
  name: "Yard",
  obstacles: [],
  targets: [],
  cameras: [],
};
const named = (name: string): SiteFile => ({ ...empty, name });

/**
 * A worker that holds a site by its name, as the real one does: it opens and changes in order, refuses a name that is "bad",
 * and says when it is out of step. It answers a turn later.
 */
class FakeWorker implements WorkerLike {
  onmessage: ((event: { data: Reply }) => void) | null = null;
  onfall: ((why: string) => void) | null = null;
  readonly posted: Request[] = [];
  private state = 0;
  private name = "";
  ended = false;

  postMessage(message: unknown): void {
    const request = message as Request;
    this.posted.push(request);
    const reply = this.work(request);
    queueMicrotask(() => {
      if (!this.ended) this.onmessage?.({ data: reply });
    });
  }

  terminate(): void {
    this.ended = true;
  }

  private work(request: Request): Reply {
    const reply: Reply = { id: request.id };
    if (request.open === undefined && request.base !== this.state) return { ...reply, outOfStep: true };
    const said =
      request.open !== undefined
        ? (JSON.parse(request.open) as SiteFile).name
        : request.change !== undefined
          ? (JSON.parse(request.change) as SiteChange).head?.name
          : this.name;
    if (said === "deadly")
      return { ...reply, broken: true, refused: JSON.stringify([{ path: "", message: "unreachable" }]) };
    if (said === "bad") return { ...reply, refused: JSON.stringify([{ path: "name", message: "is bad" }]) };
    this.name = said ?? this.name;
    this.state = request.state;
    return request.ask === undefined ? reply : { ...reply, answer: JSON.stringify(this.name) };
  }
}

const asking = { ask: { ask: "survey" as const } };

function followed(): { follower: Follower; workers: FakeWorker[] } {
  const workers: FakeWorker[] = [];
  const follower = new Follower(() => {
    const worker = new FakeWorker();
    workers.push(worker);
    return worker;
  });
  return { follower, workers };
}

describe("the firm's own models", () => {
  it("are told to each worker once, before what it is asked, and again to a new one", async () => {
    const { follower, workers } = followed();
    const models = (posted: Request[]): (string | undefined)[] => posted.map((request) => request.stock);
    await follower.run(named("A"), asking);
    tellStock([{ name: "House turret" } as Model]);
    const { models: written } = stockNow();
    await follower.run(named("A"), asking);
    await follower.run(named("B"), asking);
    expect(models(workers[0]?.posted ?? [])).toEqual([undefined, written, undefined]);
    // The same again is no news.
    tellStock([{ name: "House turret" } as Model]);
    await follower.run(named("C"), asking);
    expect(models(workers[0]?.posted ?? []).at(-1)).toBeUndefined();
    follower.stop();
    await follower.run(named("C"), asking);
    expect(models(workers[1]?.posted ?? [])).toEqual([written]);
    tellStock([]);
    await follower.run(named("C"), asking);
    expect(models(workers[1]?.posted ?? [])).toEqual([written, "[]"]);
  });
});

describe("a follower", () => {
  it("opens once, sends changes after that, and answers of the state that was asked about", async () => {
    const { follower, workers } = followed();
    const answers = await Promise.all([named("A"), named("B"), named("C")].map((site) => follower.run(site, asking)));
    expect(answers.map((reply) => reply.answer)).toEqual(['"A"', '"B"', '"C"']);
    expect(workers[0]?.posted.map((request) => [request.open !== undefined, request.change !== undefined])).toEqual([
      [true, false],
      [false, true],
      [false, true],
    ]);
  });

  it("sends nothing but the question for a state that it holds", async () => {
    const { follower, workers } = followed();
    const site = named("A");
    await follower.run(site, asking);
    await follower.run(site, asking);
    expect([workers[0]?.posted[1]?.open, workers[0]?.posted[1]?.change]).toEqual([undefined, undefined]);
  });

  it("never answers of a refused state, nor of a wrong one after it", async () => {
    const { follower } = followed();
    await follower.run(named("A"), asking);
    // Both are on their way before the refusal comes back: the second was reckoned from the refused state.
    const bad = follower.run(named("bad"), asking);
    const good = follower.run(named("B"), asking);
    await expect(bad).rejects.toEqual(new Refused([{ path: "name", message: "is bad" }]));
    expect((await good).answer).toEqual('"B"');
    expect((await follower.run(named("C"), asking)).answer).toEqual('"C"');
  });

  it("puts another worker in the place of one whose core fell over, and asks it what was left", async () => {
    const { follower, workers } = followed();
    await follower.run(named("A"), asking);
    const deadly = follower.run(named("deadly"), asking);
    const left = follower.run(named("B"), asking);
    await expect(deadly).rejects.toEqual(new Fallen("unreachable"));
    expect((await left).answer).toEqual('"B"');
    expect([workers.length, workers[0]?.ended]).toEqual([2, true]);
    expect(useCoreState.getState().trouble).toBeNull();
  });

  it("answers all who wait when its worker ends or never comes, and starts another for the next", async () => {
    const { follower, workers } = followed();
    const both = [named("A"), named("B")].map((site) => follower.run(site, asking));
    workers[0]?.onfall?.("it has ended");
    for (const one of both) await expect(one).rejects.toEqual(new Fallen("it has ended"));
    expect([useCoreState.getState().trouble, workers[0]?.ended, follower.busy]).toEqual(["it has ended", true, false]);
    expect((await follower.run(named("B"), asking)).answer).toEqual('"B"');
    // What the old one still says, and that it ends once more, concerns nobody.
    workers[0]?.onfall?.("again");
    expect([workers.length, useCoreState.getState().trouble]).toEqual([2, null]);
  });

  it("ends at once, drops what was asked, and goes on with another worker", async () => {
    const { follower, workers } = followed();
    const dropped = follower.run(named("A"), asking);
    follower.stop();
    expect((await dropped).dropped).toBe(true);
    expect((await follower.run(named("B"), asking)).answer).toEqual('"B"');
    expect([workers.length, workers[0]?.ended, follower.busy]).toEqual([2, true, false]);
  });
});

describe("a change", () => {
  const target = (id: string, name = id): SiteFile["targets"][number] => ({
    id,
    name,
    subject: "face",
    task: "identify",
    shape: { kind: "point", points: [[1, 2]] },
    height_m: 1.6,
  });
  const site: SiteFile = { ...empty, targets: [target("t1"), target("t2"), target("t3")] };

  it("is nothing between equal states", () => {
    expect(siteChange(site, site)).toBeNull();
    expect(siteChange(site, { ...site })).toBeNull();
  });

  it("holds only what is different", () => {
    const moved = target("t2", "moved");
    expect(siteChange(site, { ...site, targets: [site.targets[0] as never, moved, site.targets[2] as never] })).toEqual(
      { targets: { put: [moved] } },
    );
    expect(siteChange(site, { ...site, name: "Other" })).toEqual({
      head: { name: "Other", place: null, design: null, brief: null, drawing: null, prices: null },
    });
  });

  it("tells what came, what went and what changed its place", () => {
    const [one, two, three] = site.targets as [never, never, never];
    const added = target("t9");
    expect(siteChange(site, { ...site, targets: [one, three] })).toEqual({ targets: { order: ["t1", "t3"], put: [] } });
    expect(siteChange(site, { ...site, targets: [three, one, two, added] })).toEqual({
      targets: { order: ["t3", "t1", "t2", "t9"], put: [added] },
    });
  });
});
