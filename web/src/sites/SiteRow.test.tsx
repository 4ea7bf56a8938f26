// @vitest-environment happy-dom
/** A row of the work list: whose site, where, how its promises stand, what is left, what changed last, and whether it is here. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import type { Standing } from "../core/types";
import type { Listed } from "../keep/sites";
import { SiteRow } from "./SiteRow";
import { SmallPlan } from "./SmallPlan";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const SITE: Listed = {
  id: "11111111-1111-4111-8111-111111111111",
  name: "Back yard",
  client: "Harbour Board",
  address: "3 Cooper's Row",
  demo: false,
  targets: 3,
  cameras: 2,
  says: "Move C1",
  revision: 4,
  saved_at: "2026-11-29T12:00:00Z",
  here: false,
  pinned: false,
  unsaved: false,
};
const PLAN: Standing["plan"] = {
  outlines: [
    [
      [0, 0],
      [20, 0],
      [20, 10],
      [0, 10],
    ],
  ],
  walls: [
    [
      [0, -5],
      [40, -5],
    ],
  ],
  cameras: [[0, 0]],
  targets: [[40, 10]],
};
const STANDING: Standing = { kept: 1, tight: 0, broken: 2, unknown: 0, left: 5, due: [], plan: PLAN };

function row(site: Listed, there = true, keepHere = vi.fn()) {
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <ul>
        <SiteRow site={site} there={there} keepHere={keepHere} />
      </ul>
    </QueryClientProvider>,
  );
}

const answering = (standing: Standing) => {
  const fetch = vi.fn(() =>
    Promise.resolve(new Response(JSON.stringify(standing), { headers: { "Content-Type": "application/json" } })),
  );
  vi.stubGlobal("fetch", fetch);
  return fetch;
};

test("a row tells where the site stands, the worst first", async () => {
  answering(STANDING);
  row(SITE);
  expect(screen.getByRole("link", { name: "Back yard" }).getAttribute("href")).toContain(SITE.id);
  expect(screen.getByText("Harbour Board, 3 Cooper's Row")).toBeTruthy();
  // Until it is known it says what the list knows.
  expect(screen.getByText("3 promises, 2 cameras")).toBeTruthy();
  const item = await screen.findByText(/2 broken/);
  expect(item.parentElement?.textContent).toMatch(/2 broken.*1 kept.*5 left to ask on site/);
  expect(item.parentElement?.textContent).not.toMatch(/tight|unknown/);
  expect(screen.getByText(/^Move C1 · /)).toBeTruthy();
});

test("a row tells what is due by the end of the month, and what is past its day", async () => {
  vi.useFakeTimers({ toFake: ["Date"], now: new Date(2027, 6, 15) });
  answering({ ...STANDING, due: ["2027-07-01", "2027-07-15", "2027-07-31", "2027-08-01"] });
  row(SITE);
  expect((await screen.findByTestId("due-soon")).textContent).toBe("3 due this month, 1 overdue");
  vi.useRealTimers();
});

test("a site that the server does not know, or a server that is away, is asked nothing", () => {
  const fetch = answering(STANDING);
  row({ ...SITE, revision: 0, here: true, unsaved: true });
  row(SITE, false);
  expect(fetch).not.toHaveBeenCalled();
  expect(screen.getByText(/not saved yet/)).toBeTruthy();
});

test("a site is put on this device with one press, and one that stands here already stays", async () => {
  answering(STANDING);
  const keepHere = vi.fn();
  const { unmount } = row(SITE, true, keepHere);
  await userEvent.click(screen.getByRole("checkbox", { name: "Keep Back yard on this device" }));
  expect(keepHere).toHaveBeenCalledExactlyOnceWith(true);
  unmount();
  row({ ...SITE, here: true });
  expect(screen.getByRole<HTMLInputElement>("checkbox").disabled).toBe(true);
});

test("the small plan shows all there is, north up, at one scale, and nothing of an empty site", () => {
  const { container } = render(<SmallPlan plan={PLAN} name="Back yard" />);
  const of = (selector: string, name: string): number => Number(container.querySelector(selector)?.getAttribute(name));
  const [camera, target] = [
    [of(".small-camera", "cx"), of(".small-camera", "cy")],
    [of(".small-target", "cx"), of(".small-target", "cy")],
  ];
  // 40 m east and 10 m north of the camera: to the right and up, four to one.
  const [across, up] = [(target[0] ?? 0) - (camera[0] ?? 0), (camera[1] ?? 0) - (target[1] ?? 0)];
  expect(across / up).toBeCloseTo(4, 6);
  const drawn = [...container.querySelectorAll("path")].map((path) => path.getAttribute("d") ?? "");
  const numbers =
    drawn
      .join(" ")
      .match(/[\d.]+/g)
      ?.map(Number) ?? [];
  expect(Math.max(...numbers)).toBeLessThanOrEqual(132);
  expect(drawn[0]).toMatch(/Z$/);
  expect(drawn[1]).not.toMatch(/Z/);
  cleanup();
  const empty = render(<SmallPlan plan={{ outlines: [], walls: [], cameras: [], targets: [] }} name="Empty" />);
  expect(empty.container.querySelector("svg")).toBeNull();
});
