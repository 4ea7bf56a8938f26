/** What is done to a site and left at once, in one window or in two, and what a device sends by itself. */
import "fake-indexeddb/auto";
import { describe, expect, it, vi } from "vitest";
import { ID, aloneInTheWorld, openWindow, opened, pass, thinking, through, yard } from "./testing";

vi.mock("../core/port", async () => ({ ask: (await import("./testing")).ask }));

aloneInTheWorld();

describe("a site that is left while a save is on its way", () => {
  it("gets what was done since, too, and the draft stays until it has", async () => {
    const { server, window } = await opened();
    server.delay = 2000;
    window.rename("A");
    await pass(1000);
    window.rename("B");
    window.close();
    await pass(1500);
    // The first has arrived, the second is on its way: until then it stands on this device.
    expect(server.newest().site.name).toBe("A");
    expect((await window.shelf.draftsOf(ID)).map((draft) => draft.site.name)).toEqual(["B"]);
    await pass(4000);
    expect([server.newest().number, server.newest().site.name]).toEqual([3, "B"]);
    expect(await window.shelf.draftsOf(ID)).toEqual([]);
  });

  it("and opened again at once: it is there, and is saved once", async () => {
    const { server, window } = await opened();
    server.delay = 1000;
    window.rename("A");
    await pass(700);
    window.rename("B");
    window.close();
    await window.load();
    expect(window.now()?.site.name).toBe("B");
    await pass(6000);
    expect([window.now()?.saving.kind, server.newest().number, server.newest().site.name]).toEqual(["saved", 3, "B"]);
  });

  it("and whose last save fails: it stands on this device", async () => {
    const { server, window } = await opened();
    server.delay = 1000;
    window.rename("A");
    await pass(700);
    window.rename("B");
    window.close();
    server.trouble = ({ body }) => (body?.site.name === "B" ? "away" : null);
    await pass(4000);
    expect(server.newest().site.name).toBe("A");
    expect((await window.shelf.draftsOf(ID)).map((draft) => draft.site.name)).toEqual(["B"]);
  });

  it("gets what was done since though somebody else saved in between", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    server.delay = 1000;
    window.moveSpot("s1", 4);
    await pass(700);
    window.moveSpot("s1", 5);
    window.close();
    server.other((site) => {
      site.name = "Theirs";
    });
    await pass(6000);
    expect([server.newest().site.name, server.newest().site.spots?.[0]?.height_m]).toEqual(["Theirs", 5]);
    expect(await window.shelf.draftsOf(ID)).toEqual([]);
  });

  it("says nothing about the site that is opened next", async () => {
    const { server, window } = await opened();
    const other = await through(window.sites.beginSite(yard("Other"), "New site"));
    server.delay = 2000;
    window.rename("A");
    window.close();
    await window.load(other);
    await pass(200);
    server.trouble = ({ path }) => (path.endsWith(ID) ? 422 : null);
    await pass(5000);
    expect([window.now()?.site.name, window.now()?.saving.kind]).toEqual(["Other", "saved"]);
  });
});

describe("a merge", () => {
  it("takes in what is typed while it waits, at every step of it", async () => {
    const { server, window } = await opened(yard("Yard", ["s1"]));
    thinking.merge = 300;
    // A colleague saves whenever the server is asked, letters come all the time.
    server.trouble = ({ method }) => {
      if (method === "PUT")
        server.other((site) => {
          for (const one of site.spots ?? []) one.height_m += 1;
        });
      return null;
    };
    let typed = "";
    for (const letter of "Yard by the old harbour gate") {
      typed += letter;
      window.rename(typed, "typing");
      await pass(200);
      expect(window.now()?.site.name).toBe(typed);
      // The hand rests now and then, and goes on while both are put together.
      if (letter === " ") await pass(700);
    }
    server.trouble = () => null;
    await pass(6000);
    expect([window.now()?.saving.kind, server.newest().site.name]).toEqual(["saved", typed]);
    expect(server.newest().site.spots?.[0]?.height_m).toBeGreaterThan(3);
  });

  it("that is refused is told, and the next change tries again", async () => {
    const { server, window } = await opened();
    server.other((site) => {
      site.name = "Theirs";
    });
    thinking.refuse = true;
    window.addSpot("s1");
    await pass(2000);
    const saving = window.now()?.saving;
    expect([saving?.kind, saving?.kind === "refused" && saving.faults[0]?.message]).toEqual([
      "refused",
      "the core fell over",
    ]);
    expect((await window.shelf.draftsOf(ID)).length).toBe(1);
    thinking.refuse = false;
    window.moveSpot("s1", 4);
    await pass(2000);
    expect([server.newest().site.name, server.newest().site.spots?.[0]?.height_m]).toEqual(["Theirs", 4]);
  });

  it("a save to a site that the server does not have says so", async () => {
    const { server, window } = await opened();
    server.sites.delete(ID);
    window.rename("A");
    await pass(1000);
    expect(window.now()?.saving).toEqual({ kind: "gone", message: "there is no such site" });
    expect((await window.shelf.draftsOf(ID)).map((draft) => draft.site.name)).toEqual(["A"]);
  });
});

describe("two windows of one browser", () => {
  it("tell each other what they saved, so that the hand goes on from it", async () => {
    const { window } = await opened(yard("Yard", ["s1"]));
    const other = await openWindow();
    await other.load();
    window.moveSpot("s1", 4);
    await pass(1500);
    expect([other.now()?.site.spots?.[0]?.height_m, other.now()?.revision]).toEqual([4, 2]);
    other.moveSpot("s1", 5);
    await pass(1500);
    expect([window.now()?.site.spots?.[0]?.height_m, window.now()?.saving.kind]).toEqual([5, "saved"]);
  });
});

describe("what stands on this device alone", () => {
  const photo = new Blob(["12345"], { type: "image/jpeg" });

  it("goes out from the list, edits and photos of every site, without one being opened", async () => {
    const { server, window } = await opened(yard("Yard", ["s1", "s2"]));
    server.trouble = () => "away";
    window.rename("A");
    await pass(1000);
    await through(window.outbox.takePhoto(ID, { kind: "spot", id: "s1" }, photo));
    await through(window.outbox.takePhoto(ID, { kind: "spot", id: "s2" }, photo));
    window.close();
    const begun = await through(window.sites.beginSite(yard("Begun"), "New site"));
    window.kill();
    const next = await openWindow();
    await through(next.sendHeld());
    expect(server.newest().number).toBe(1);
    server.trouble = () => null;
    expect(await through(next.sendHeld())).toBe(true);
    const { site } = server.newest();
    // The same picture of two places is a photo of both.
    expect([site.name, site.spots?.map((one) => one.photos?.length)]).toEqual(["A", [1, 1]]);
    expect(server.newest(begun).site.name).toBe("Begun");
    expect([await next.shelf.allDrafts(), await next.shelf.allPhotos()]).toEqual([[], []]);
    expect(next.now()).toBeNull();
  });

  it("waits for somebody where something has to be chosen, and says so", async () => {
    const { server, window } = await opened();
    server.trouble = () => "away";
    window.rename("Mine");
    await pass(1000);
    window.kill();
    server.other((site) => {
      site.name = "Theirs";
    });
    server.trouble = () => null;
    const next = await openWindow();
    expect(await through(next.sendHeld())).toBe(false);
    expect(next.stuck()[ID]).toContain("open it and choose");
    expect(server.newest().site.name).toBe("Theirs");
    await next.load();
    expect([next.now()?.site.name, next.now()?.saving.kind]).toEqual(["Mine", "clash"]);
  });

  it("goes out too when the server has lost the site, as from an older backup", async () => {
    const { server, window } = await opened();
    server.trouble = () => "away";
    window.rename("A");
    await pass(1000);
    window.kill();
    server.sites.delete(ID);
    server.trouble = () => null;
    const next = await openWindow();
    expect(await through(next.sendHeld())).toBe(true);
    expect([server.newest().number, server.newest().site.name]).toEqual([1, "A"]);
    expect(await next.shelf.allDrafts()).toEqual([]);
  });

  it("leaves a site alone that somebody opens meanwhile", async () => {
    const { server, window } = await opened();
    server.trouble = () => "away";
    window.rename("A");
    await pass(1000);
    window.kill();
    server.trouble = () => null;
    server.delay = 500;
    const next = await openWindow();
    const sending = next.sendHeld();
    await pass(300);
    await next.load();
    await through(sending);
    await pass(3000);
    expect([next.now()?.site.name, next.now()?.saving.kind, server.newest().site.name]).toEqual(["A", "saved", "A"]);
  });
});

describe("a page that goes", () => {
  it("says its last word though the database was given it and never answered", async () => {
    const listeners = new Map<string, () => void>();
    vi.stubGlobal("window", { addEventListener: (name: string, act: () => void) => void listeners.set(name, act) });
    vi.stubGlobal("document", { addEventListener: () => undefined, visibilityState: "visible" });
    const { window } = await opened();
    const { IDBObjectStore } = await import("fake-indexeddb");
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("the page is gone", "AbortError");
    });
    window.rename("A");
    listeners.get("pagehide")?.();
    window.kill();
    await pass(100);
    put.mockRestore();
    const next = await openWindow();
    await next.load();
    expect(next.now()?.site.name).toBe("A");
  });
});

it("a drag that is broken off leaves nothing, and nothing to redo", async () => {
  const { server, window } = await opened(yard("Yard", ["s1"]));
  window.rename("A");
  const before = window.now()?.site;
  for (const height of [4, 5, 6]) window.moveSpot("s1", height);
  const { undo, takeBack } = window.store.useSite.getState();
  if (before) takeBack(before);
  // Not one gesture: only a drag's own step is taken back.
  expect(window.now()?.site.spots?.[0]?.height_m).toBe(6);
  undo();
  undo();
  undo();
  const from = window.now()?.site;
  const drag = (height: number): void =>
    window.store.useSite.getState().edit(
      "Drag",
      (site) => {
        for (const one of site.spots ?? []) one.height_m = height;
      },
      "drag-1",
    );
  drag(7);
  drag(8);
  if (from) takeBack(from);
  expect([window.now()?.site.spots?.[0]?.height_m, window.history.nextStep(), window.history.lastStep()]).toEqual([
    3,
    null,
    "Rename to A",
  ]);
  await pass(2000);
  expect(server.newest().site.spots?.[0]?.height_m).toBe(3);
});
