/** The keeping of a site, against a server that is slow, lossy and refuses, windows that are closed and killed, and a full device. */
import "fake-indexeddb/auto";
import { describe, expect, it, vi } from "vitest";
import { ID, Server, aloneInTheWorld, openWindow, opened, pass, quiet, thinking, through, yard } from "./testing";

vi.mock("../core/port", async () => ({ ask: (await import("./testing")).ask }));

aloneInTheWorld();

describe("a site in hand", () => {
  it("is saved once it came to rest, once, based on the revision before", async () => {
    const { server, window } = await opened();
    window.rename("A");
    window.rename("B");
    expect(window.now()?.saving.kind).toBe("waiting");
    await pass(700);
    expect(server.saves().map(({ body }) => [body?.based_on, body?.says, body?.site.name])).toEqual([
      [1, "Rename to B", "B"],
    ]);
    expect([window.now()?.saving.kind, window.now()?.revision]).toEqual(["saved", 2]);
    expect(await window.shelf.draftsOf(ID)).toEqual([]);
  });

  it("is undone and redone step by step; one gesture is one step", async () => {
    const { window } = await opened();
    window.rename("A");
    for (const letter of ["B", "C", "D"]) window.rename(letter, "drag-1");
    window.rename("E", "drag-2");
    const { undo, redo } = window.store.useSite.getState();
    const names = [undo, undo, undo, redo, redo, redo, redo].map((step) => {
      step();
      return window.now()?.site.name;
    });
    expect(names).toEqual(["D", "A", "Yard", "A", "D", "E", "E"]);
    undo();
    window.rename("F");
    redo();
    expect(window.now()?.site.name).toBe("F");
  });

  it("does not count what changes nothing", async () => {
    const { window } = await opened();
    window.rename("Yard");
    expect([window.history.useHistory.temporal.getState().pastStates.length, window.now()?.saving.kind]).toEqual([
      0,
      "saved",
    ]);
  });

  it("a slow save and an edit meanwhile: one save at a time, and no quarrel with oneself", async () => {
    const { server, window } = await opened();
    server.delay = 3000;
    window.rename("A");
    await pass(1000);
    window.rename("B");
    await pass(1000);
    window.rename("C");
    expect(server.saves().length).toBe(1);
    await pass(8000);
    expect(server.saves().map(({ body }) => [body?.based_on, body?.site.name])).toEqual([
      [1, "A"],
      [2, "C"],
    ]);
    expect([window.now()?.saving.kind, window.now()?.revision]).toEqual(["saved", 3]);
  });

  it("left within half a second of a change and opened again: it is there, and nobody is in the way", async () => {
    const { server, window } = await opened();
    server.delay = 400;
    window.rename("A");
    window.close();
    await window.load();
    expect([window.now()?.site.name, window.now()?.saving.kind]).toEqual(["A", "saved"]);
    await pass(2000);
    expect([server.newest().number, server.newest().site.name]).toEqual([2, "A"]);
    expect(await window.shelf.draftsOf(ID)).toEqual([]);
  });

  for (const status of [408, 425, 429, 500, 502, 503, 504, 507]) {
    it(`a save that is answered ${status} is tried again, and stands on the device until then`, async () => {
      const { server, window } = await opened();
      server.trouble = () => status;
      window.rename("A");
      await pass(1000);
      expect(window.now()?.saving.kind).toBe("away");
      expect((await window.shelf.draftsOf(ID)).map((draft) => draft.site.name)).toEqual(["A"]);
      server.trouble = () => null;
      await pass(5000);
      expect([window.now()?.saving.kind, server.newest().site.name]).toEqual(["saved", "A"]);
      expect(await window.shelf.draftsOf(ID)).toEqual([]);
    });
  }

  it("a save whose answer is lost is repeated and is one revision", async () => {
    const { server, window } = await opened();
    let lost = 0;
    server.trouble = ({ method }) => (method === "PUT" && ++lost === 1 ? "lost" : null);
    window.rename("A");
    await pass(6000);
    expect([server.newest().number, window.now()?.revision, window.now()?.saving.kind]).toEqual([2, 2, "saved"]);
  });

  it("a save whose answer is lost and an edit after it: no quarrel with oneself", async () => {
    const { server, window } = await opened();
    let lost = 0;
    server.trouble = ({ method }) => (method === "PUT" && ++lost === 1 ? "lost" : null);
    window.rename("A");
    await pass(800);
    window.rename("B");
    await pass(8000);
    expect(window.now()?.saving.kind).toBe("saved");
    expect([server.newest().number, server.newest().site.name]).toEqual([3, "B"]);
  });

  it("a save whose answer is lost, somebody's save after it, and an edit: all three are there", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    let lost = 0;
    server.trouble = ({ method }) => (method === "PUT" && ++lost === 1 ? "lost" : null);
    window.moveSpot("s1", 4);
    await pass(800);
    server.other((site) => {
      site.name = "Theirs";
    });
    window.moveSpot("s1", 5);
    await pass(8000);
    expect(window.now()?.saving.kind).toBe("saved");
    expect([server.newest().site.name, server.newest().site.spots?.[0]?.height_m]).toEqual(["Theirs", 5]);
  });

  it("a save whose answer is lost in a window that is killed: the next window goes on from it", async () => {
    const { server, window } = await opened();
    server.trouble = ({ method }) => (method === "PUT" ? "lost" : null);
    window.rename("A");
    await pass(800);
    window.rename("B");
    await pass(400);
    window.kill();
    server.trouble = () => null;
    const next = await openWindow();
    await next.load();
    await pass(3000);
    expect([next.now()?.saving.kind, server.newest().site.name]).toEqual(["saved", "B"]);
  });

  it("what the server refuses is said, and nothing is sent until it is changed", async () => {
    const { server, window } = await opened();
    server.trouble = ({ method }) => (method === "PUT" ? 422 : null);
    window.rename("Bad");
    await pass(20_000);
    expect([window.now()?.saving.kind, server.saves().length]).toEqual(["refused", 1]);
    server.trouble = () => null;
    window.rename("Good");
    await pass(1000);
    expect([window.now()?.saving.kind, server.newest().site.name]).toEqual(["saved", "Good"]);
  });

  it("says why a site cannot be opened that was never on this device", async () => {
    const server = new Server();
    server.trouble = () => "away";
    const window = await openWindow();
    await window.load();
    expect([window.now(), window.store.useSite.getState().failed?.message]).toEqual([
      null,
      "the server does not answer",
    ]);
  });
});

describe("windows", () => {
  it("a window that is killed loses nothing: the next one takes its draft up, and it can be undone", async () => {
    const { server, window } = await opened();
    server.trouble = ({ method }) => (method === "PUT" ? "away" : null);
    window.rename("A");
    await pass(400);
    window.kill();
    server.trouble = () => null;
    const next = await openWindow();
    await next.load();
    expect(next.now()?.site.name).toBe("A");
    next.store.useSite.getState().undo();
    expect(next.now()?.site.name).toBe("Yard");
    next.store.useSite.getState().redo();
    await pass(3000);
    expect(server.newest().site.name).toBe("A");
    expect(await next.shelf.draftsOf(ID)).toEqual([]);
  });

  it("a window that is closed before the database has answered says its last word where it is heard", async () => {
    const { server, window } = await opened();
    server.trouble = ({ method }) => (method === "PUT" ? "away" : null);
    window.rename("A");
    await pass(700);
    const [draft] = await window.shelf.draftsOf(ID);
    localStorage.setItem(
      `bright-angle/last/${ID}/${window.tab}`,
      JSON.stringify({ ...draft, site: yard("B"), at: Date.now() + 1 }),
    );
    window.kill();
    server.trouble = () => null;
    const next = await openWindow();
    await next.load();
    expect(next.now()?.site.name).toBe("B");
    await pass(1000);
    expect(localStorage.length).toBe(0);
  });

  it("two windows of one site: neither overwrites the other's draft, and both changes are saved", async () => {
    const { server, window: first } = await opened(yard("Yard", ["s1"]));
    const second = await openWindow();
    await second.load();
    server.trouble = ({ method }) => (method === "PUT" ? "away" : null);
    first.rename("First");
    second.moveSpot("s1", 5);
    await pass(1000);
    expect((await first.shelf.draftsOf(ID)).length).toBe(2);
    server.trouble = () => null;
    await pass(10_000);
    expect([first.now()?.saving.kind, second.now()?.saving.kind]).toEqual(["saved", "saved"]);
    const { site, number } = server.newest();
    expect([number, site.name, site.spots?.[0]?.height_m]).toEqual([3, "First", 5]);
  });

  it("a window that is opened beside another leaves what that one has not saved to it", async () => {
    const { server, window: first } = await opened();
    server.trouble = ({ method }) => (method === "PUT" ? "away" : null);
    first.rename("First");
    await pass(1000);
    const second = await openWindow();
    await second.load();
    expect(second.now()?.site.name).toBe("Yard");
    expect((await first.shelf.draftsOf(ID)).map((draft) => [draft.tab, draft.site.name])).toEqual([
      [first.tab, "First"],
    ]);
  });

  it("two windows that add at once: two things under two names", async () => {
    const { server, window: first } = await opened(yard("Yard", ["s1"]));
    const second = await openWindow();
    await second.load();
    first.addSpot("s2");
    second.addSpot("s2");
    second.moveSpot("s2", 9);
    await pass(5000);
    expect(
      server
        .newest()
        .site.spots?.map((one) => one.height_m)
        .sort(),
    ).toEqual([3, 3, 9]);
  });
});

describe("somebody else", () => {
  it("who changed other things: both are taken, and it is said", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    server.other((site) => {
      site.name = "Theirs";
    });
    window.moveSpot("s1", 4);
    await pass(2000);
    const { site, number } = server.newest();
    expect([number, site.name, site.spots?.[0]?.height_m]).toEqual([3, "Theirs", 4]);
    expect(window.store.useSite.getState().notice).toContain("Revision 2 was saved elsewhere");
    // Undo does not take back what others did.
    window.store.useSite.getState().undo();
    expect(window.now()?.site.name).toBe("Theirs");
  });

  it("who changed the same things: nothing is sent, each is chosen, and work goes on meanwhile", async () => {
    const { server, window } = await opened(yard("Yard", ["s1", "s2"]));
    server.other((site) => {
      for (const one of site.spots ?? []) one.height_m = 7;
      site.name = "Theirs";
    });
    window.moveSpot("s1", 4);
    window.moveSpot("s2", 4);
    await pass(2000);
    const saving = window.now()?.saving;
    if (saving?.kind !== "clash") throw new Error("no clash");
    expect(saving.clash.merged.clashes.map((one) => [one.thing, one.id])).toEqual([
      ["spot", "s1"],
      ["spot", "s2"],
    ]);
    window.moveSpot("s2", 5);
    await pass(2000);
    expect(server.saves().length).toBe(1);
    const left = await window.store.useSite.getState().settle([
      { thing: "spot", id: "s1", take: "theirs" },
      { thing: "spot", id: "s2", take: "mine" },
    ]);
    await pass(2000);
    expect([left, window.now()?.saving.kind]).toEqual([null, "saved"]);
    const { site, number } = server.newest();
    expect([number, site.name, site.spots?.map((one) => one.height_m)]).toEqual([3, "Theirs", [7, 5]]);
  });

  it("who is put together with while the hand goes on: what the hand did meanwhile is there too", async () => {
    const { server, window } = await opened(yard("Yard", ["s1", "s2"]));
    server.other((site) => {
      site.name = "Theirs";
    });
    thinking.merge = 800;
    window.moveSpot("s1", 4);
    await pass(1000);
    window.moveSpot("s2", 5);
    await pass(6000);
    const { site } = server.newest();
    expect([site.name, site.spots?.map((one) => one.height_m)]).toEqual(["Theirs", [4, 5]]);
  });

  it("taken as a whole can be gone back from", async () => {
    const { server, window } = await opened();
    server.other((site) => {
      site.name = "Theirs";
    });
    window.rename("Mine");
    await pass(2000);
    await through(
      window.store.useSite
        .getState()
        .settle("theirs")
        .then(() => undefined),
    );
    expect([window.now()?.site.name, window.now()?.revision, window.now()?.saving.kind]).toEqual([
      "Theirs",
      2,
      "saved",
    ]);
    window.store.useSite.getState().undo();
    await pass(1000);
    expect([server.newest().number, server.newest().site.name]).toEqual([3, "Mine"]);
  });

  it("who deleted the site: what is in hand stands on the device until somebody decides", async () => {
    const { server, window } = await opened();
    server.deleted.add(ID);
    window.rename("Mine");
    await pass(2000);
    expect(window.now()?.saving.kind).toBe("gone");
    expect((await window.shelf.draftsOf(ID)).map((draft) => draft.site.name)).toEqual(["Mine"]);
  });
});

describe("without a server", () => {
  it("a site that was opened here opens again, is worked on, and is saved when the server is back", async () => {
    const { server, window } = await opened();
    window.close();
    window.kill();
    server.trouble = () => "away";
    const next = await openWindow();
    await next.load();
    expect([next.now()?.site.name, next.now()?.offline]).toEqual(["Yard", true]);
    next.rename("A");
    await pass(1000);
    expect(next.now()?.saving.kind).toBe("away");
    next.kill();
    const third = await openWindow();
    await third.load();
    expect(third.now()?.site.name).toBe("A");
    server.trouble = () => null;
    await pass(10_000);
    expect([third.now()?.saving.kind, server.newest().number, server.newest().site.name]).toEqual(["saved", 2, "A"]);
  });

  it("a change of half a second ago goes out when the network comes back just then", async () => {
    // The page, for what it hears of the network.
    const page = new EventTarget();
    vi.stubGlobal("window", page);
    vi.stubGlobal("document", new EventTarget());
    try {
      const { server, window } = await opened();
      server.trouble = () => "away";
      window.rename("A");
      await pass(1000);
      expect([window.now()?.saving.kind, window.now()?.offline]).toEqual(["away", true]);
      window.rename("B");
      expect(window.now()?.saving.kind).toBe("waiting");
      server.trouble = () => null;
      page.dispatchEvent(new Event("online"));
      await pass(10_000);
      expect([window.now()?.saving.kind, server.newest().site.name]).toEqual(["saved", "B"]);
    } finally {
      vi.stubGlobal("window", undefined);
      vi.stubGlobal("document", undefined);
    }
  });

  it("a site that was changed elsewhere meanwhile is brought up to date when the server is back", async () => {
    const { server, window } = await opened();
    window.close();
    server.other((site) => {
      site.name = "Theirs";
    });
    server.trouble = () => "away";
    await window.load();
    expect(window.now()?.site.name).toBe("Yard");
    server.trouble = () => null;
    await pass(5000);
    expect([window.now()?.site.name, window.now()?.revision, window.now()?.saving.kind]).toEqual([
      "Theirs",
      2,
      "saved",
    ]);
  });

  it("a site is begun, and is one site when the server is back, though the first answer is lost", async () => {
    const server = new Server(null);
    server.trouble = () => "away";
    const window = await openWindow();
    const id = await through(window.sites.beginSite(yard("Begun"), "New site"));
    await window.load(id);
    expect([window.now()?.site.name, window.now()?.revision]).toEqual(["Begun", 0]);
    window.rename("Begun here");
    await pass(1000);
    let posts = 0;
    server.trouble = ({ method }) => (method === "POST" && ++posts === 1 ? "lost" : null);
    await pass(10_000);
    expect([window.now()?.saving.kind, server.sites.size, server.newest(id).number]).toEqual(["saved", 1, 1]);
    expect(server.newest(id).site.name).toBe("Begun here");
  });

  it("a site is begun, the answer is lost, and the hand goes on: it is saved, and is one site", async () => {
    const server = new Server(null);
    const window = await openWindow();
    const id = await through(window.sites.beginSite(yard("Begun"), "New site"));
    await window.load(id);
    let posts = 0;
    server.trouble = ({ method }) => (method === "POST" && ++posts === 1 ? "lost" : null);
    window.rename("First");
    await pass(800);
    window.rename("Second");
    await pass(10_000);
    expect([window.now()?.saving.kind, server.sites.size, server.newest(id).site.name]).toEqual(["saved", 1, "Second"]);
  });

  it("the list shows what is on this device", async () => {
    const { server, window } = await opened();
    await through(window.sites.beginSite(yard("Begun"), "New site"));
    server.trouble = () => "away";
    const page = await through(window.sites.listSites(null, ""));
    expect([page.away, page.sites.map((site) => [site.name, site.revision, site.unsaved]).sort()]).toEqual([
      true,
      [
        ["Begun", 0, true],
        ["Yard", 1, false],
      ],
    ]);
  });
});

describe("a full device", () => {
  it("is told, not swallowed, and told no more once there is room", async () => {
    const { server, window } = await opened();
    const { IDBObjectStore } = await import("fake-indexeddb");
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    server.trouble = ({ method }) => (method === "PUT" ? "away" : null);
    window.rename("A");
    await pass(1000);
    expect(window.shelf.useShelf.getState().trouble).toContain("no room left");
    put.mockRestore();
    window.rename("B");
    await pass(1000);
    expect(window.shelf.useShelf.getState().trouble).toBeNull();
    server.trouble = () => null;
    await pass(10_000);
    expect(server.newest().site.name).toBe("B");
  });
});

describe("photos on their way", () => {
  const photo = new Blob(["12345"], { type: "image/jpeg" });
  const waiting = async (window: Awaited<ReturnType<typeof openWindow>>): Promise<number> =>
    (await window.shelf.photosOf(ID)).length;
  const owner = { kind: "spot", id: "s1" } as const;
  const photos = (server: Server): number => server.newest().site.spots?.[0]?.photos?.length ?? 0;

  for (const status of [408, 429, 500, 503, 507]) {
    it(`one that is answered ${status} stays on the device and goes out later`, async () => {
      const { server, window } = await opened(yard("Yard", ["s1"]));
      server.trouble = ({ path }) => (path === "/api/pictures" ? status : null);
      await through(window.outbox.takePhoto(ID, owner, photo));
      await pass(1000);
      expect([await waiting(window), server.pictures.size]).toEqual([1, 0]);
      server.trouble = () => null;
      await through(window.outbox.sendPending(ID));
      await pass(2000);
      expect([await waiting(window), photos(server)]).toEqual([0, 1]);
    });
  }

  it("one leaves the device only when a revision on the server names it", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    server.trouble = ({ method }) => (method === "PUT" ? 503 : null);
    await through(window.outbox.takePhoto(ID, owner, photo));
    await pass(2000);
    expect([server.pictures.size, window.now()?.site.spots?.[0]?.photos?.length, await waiting(window)]).toEqual([
      1, 1, 1,
    ]);
    // The window is killed: the picture is on the server, the site does not name it yet.
    window.kill();
    server.trouble = () => null;
    const next = await openWindow();
    await next.load();
    await through(next.outbox.sendPending(ID));
    await pass(3000);
    expect([photos(server), await waiting(next)]).toEqual([1, 0]);
  });

  it("one that the server does not take stays until somebody throws it away", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    server.trouble = ({ path }) => (path === "/api/pictures" ? 422 : null);
    await through(window.outbox.takePhoto(ID, owner, photo));
    await pass(3000);
    const [stuck] = window.outbox.usePhotoStore.getState().waiting;
    expect([await waiting(window), stuck?.stuck]).toEqual([1, "answer 422"]);
    await through(window.outbox.throwAway(ID, stuck?.key ?? ""));
    expect(await waiting(window)).toBe(0);
  });

  it("one whose spot is gone stays, and finds another", async () => {
    const { server, window } = await opened(yard("Yard", ["s1", "s2"]));
    server.trouble = () => "away";
    await through(window.outbox.takePhoto(ID, { kind: "spot", id: "s2" }, photo));
    window.store.useSite.getState().edit("Delete s2", (site) => {
      site.spots = site.spots?.filter((one) => one.id !== "s2") ?? [];
    });
    server.trouble = () => null;
    await pass(5000);
    await through(window.outbox.sendPending(ID));
    await pass(1000);
    const [stuck] = window.outbox.usePhotoStore.getState().waiting;
    expect([await waiting(window), stuck?.stuck]).toEqual([1, "the spot that it shows is gone"]);
    await through(window.outbox.tryAgain(ID, stuck?.key ?? "", owner));
    await pass(2000);
    expect([photos(server), await waiting(window)]).toEqual([1, 0]);
  });

  it("one that was undone before it was saved is asked about and not lost", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    server.trouble = ({ method }) => (method === "PUT" ? 503 : null);
    await through(window.outbox.takePhoto(ID, owner, photo));
    await pass(1000);
    window.store.useSite.getState().undo();
    await through(window.outbox.sendPending(ID));
    await quiet();
    const [stuck] = window.outbox.usePhotoStore.getState().waiting;
    expect(stuck?.stuck).toContain("taken out of the site");
    server.trouble = () => null;
    await pass(5000);
    expect(await waiting(window)).toBe(1);
  });
});
