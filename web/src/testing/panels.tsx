/** What the tests of panels share: a demo site open in the store, the real core behind its door, and what was edited. */
import { readFileSync } from "node:fs";
import { cleanup, render } from "@testing-library/react";
import { afterEach, beforeEach, vi } from "vitest";
import { App as AntApp } from "antd";
import type { ReactElement } from "react";
import type { HeadRef, Sights, SiteFile } from "../core/types";
import type { Shown } from "../core/useSights";
import { useSettings } from "../keep/settings";
import { useSite } from "../keep/store";
import { useInHand } from "../model/inHand";
import { answerTo } from "./door";

export const demoSite = (name: "tern-quay" | "umber-yard" | "saltpan-lane"): SiteFile =>
  JSON.parse(readFileSync(`../demo/${name}.json`, "utf8")) as SiteFile;

/** Opens a site in the store as if the server had it. */
export function open(site: SiteFile): void {
  useSite.setState({
    open: {
      id: "11111111-1111-4111-8111-111111111111",
      opening: 1,
      revision: 1,
      base: site,
      savedAt: "2026-11-29T12:00:00Z",
      site,
      saving: { kind: "saved" },
      says: "",
      offline: false,
    },
  });
}

/** The site as it is now. */
export function now(): SiteFile {
  const held = useSite.getState().open;
  if (!held) throw new Error("no site is open");
  return held.site;
}

/** What the screen shows of the open site with a promise and a camera selected. */
export function shownOf(target: string | null, head: HeadRef | null): Shown {
  const site = now();
  const sights: Sights = answerTo(site, { ask: "sights", target, head });
  const line = target && head ? { target, camera: head.camera, head: head.head, view: head.view ?? null } : null;
  return { site, line, sights, of: site, settled: true, faults: null };
}

/** Draws a panel of the open site anew each time that the site changes, as the screens do. */
export function draw(Panel: () => ReactElement): ReturnType<typeof render> {
  function OfTheSite(): ReactElement {
    // Reads the site, so that it is drawn again with it.
    useSite((state) => state.open?.site);
    return Panel();
  }
  return render(
    <AntApp>
      <OfTheSite />
    </AntApp>,
  );
}

beforeEach(() => {
  // The server never answers: what is kept is tested elsewhere.
  vi.stubGlobal("fetch", () => new Promise(() => undefined));
  useSettings.setState({ units: "metres", dark: false, toolsTall: null });
  useInHand.setState(useInHand.getInitialState(), true);
});

afterEach(() => {
  cleanup();
  useSite.getState().close();
  vi.unstubAllGlobals();
});
