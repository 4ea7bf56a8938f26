// @vitest-environment happy-dom
/** The tools: each answers a question, applies where it says something, and its panel tells what the core tells of this state. */
import { act, fireEvent, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, test, vi } from "vitest";
import type { HeadRef } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { answerTo } from "../../testing/door";
import { demoSite, draw, now, open, shownOf } from "../../testing/panels";
import { LowerPanel } from "./LowerPanel";
import { DesignsPanel } from "./designs/DesignsPanel";
import { LanePanel } from "./lane/LanePanel";
import { useLower } from "./lowerView";
import { NightPanel } from "./night/NightPanel";
import { TOOLS, toggle, turnTo } from "./tools";

vi.mock("../../core/port", async () => (await import("../../testing/door")).door);

const HEAD: HeadRef = { camera: "c4", head: "h1" };

beforeEach(() => {
  open(demoSite("tern-quay"));
  useLower.setState(useLower.getInitialState(), true);
  useInHand.setState({ target: "t1", head: HEAD });
});

describe("the strip of tools", () => {
  const strip = () =>
    draw(() => {
      const shown = shownOf("t1", HEAD);
      return <LowerPanel shown={shown} calm={shown} ground={null} />;
    });

  test("each tool is a question, and the one of plates comes with a plate only", () => {
    for (const { question, short } of TOOLS) expect([question.at(-1), short.at(-1)]).toEqual(["?", "?"]);
    strip();
    const tabs = screen.getAllByRole("tab").map((tab) => tab.getAttribute("aria-label"));
    expect(tabs).toEqual(TOOLS.filter(({ id }) => id !== "lane").map(({ question }) => question));
    const plate = now().targets.find(({ subject }) => subject === "plate");
    act(() => useInHand.setState({ target: plate?.id ?? null }));
    expect(screen.getByRole("tab", { name: "What reads the plate?" })).toBeTruthy();
  });

  test("a tab turns to its tool; what is not there any more gives way to the first", async () => {
    strip();
    await userEvent.click(screen.getByRole("tab", { name: "Which option?" }));
    expect(screen.getByRole("region", { name: "Options" })).toBeTruthy();
    act(() => useLower.setState({ tool: "lane" }));
    expect(screen.getByRole("region", { name: "Side view along the sight line" })).toBeTruthy();
  });

  test("a double click and the button at the end fill the middle, and put it back", async () => {
    strip();
    await userEvent.dblClick(screen.getByRole("tab", { name: "Can it be seen?" }));
    expect(useLower.getState().fills).toBe(true);
    expect(screen.queryByRole("separator")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: /Back under the plan/ }));
    expect(useLower.getState().fills).toBe(false);
  });

  test("the edge moves by keys within its bounds, and a double click makes it as it was", () => {
    strip();
    const edge = screen.getByRole("separator", { name: "Height of the tools" });
    fireEvent.keyDown(edge, { key: "ArrowUp" });
    const { toolsTall } = useSettings.getState();
    expect(toolsTall).toBeGreaterThan(0);
    for (let press = 0; press < 60; press++) fireEvent.keyDown(edge, { key: "ArrowDown" });
    expect(useSettings.getState().toolsTall).toBe(140);
    fireEvent.doubleClick(edge);
    expect(useSettings.getState().toolsTall).toBeNull();
  });

  test("a key turns to a tool and back to the one before", () => {
    turnTo("night");
    toggle("ground");
    expect(useLower.getState().tool).toBe("ground");
    toggle("ground");
    expect(useLower.getState().tool).toBe("night");
  });
});

describe("what the night does", () => {
  test("the site is judged by night at a switch, and told what each promise gets of light", async () => {
    draw(() => <NightPanel site={now()} />);
    await userEvent.click(screen.getByRole("switch"));
    expect(now().conditions?.night).toBe(true);
    const told = answerTo(now(), { ask: "light" });
    const table = within(await screen.findByRole("table"));
    for (const target of now().targets) expect(table.getByRole("rowheader", { name: target.name })).toBeTruthy();
    const lit = told.targets.find(({ lux_upright }) => lux_upright >= 10);
    if (lit) expect(screen.getAllByText(`${lit.lux_upright.toFixed(0)} lx`).length).toBeGreaterThan(0);
  });

  test("what is overexposed is told in times first, and stops beside it", async () => {
    const washed = answerTo(now(), { ask: "light" }).washed.find(({ by }) => by.length > 0);
    if (!washed) throw new Error("the demo's own walls are overexposed");
    useInHand.setState({ head: { camera: washed.camera, head: washed.head } });
    draw(() => <NightPanel site={now()} />);
    const part = await screen.findByRole("region", { name: "What light does to this picture" });
    const stops = washed.by[0]?.stops ?? 0;
    expect(part.textContent).toContain(`${stops.toFixed(1)} stops) too bright`);
    expect(part.textContent).not.toMatch(/bubble|wash/);
  });
});

describe("what reads the plate", () => {
  test("a moving plate's figures are those of the core, in the trade's words", async () => {
    open(demoSite("saltpan-lane"));
    const site = now();
    const plate = site.targets.find(({ subject, shape }) => subject === "plate" && shape.kind === "line");
    if (!plate) throw new Error("the demo has a moving plate");
    const best = answerTo(site, { ask: "sights", target: plate.id, head: null }).summary.targets.find(
      ({ target }) => target === plate.id,
    )?.best;
    if (!best) throw new Error("somebody reads it");
    useInHand.setState({ target: plate.id, head: best });
    draw(() => {
      const shown = shownOf(plate.id, best);
      return <LanePanel shown={shown} calm={shown} />;
    });
    const { zone } = shownOf(plate.id, best).sights?.line ?? {};
    const figures = await screen.findByTestId("lane-figures");
    const of = (word: string): string | null | undefined =>
      within(figures).getByText(word).parentElement?.querySelector("dd")?.textContent;
    expect(of("Pictures of the plate")).toBe(zone?.looks?.toFixed(0) ?? "frame rate not given");
    expect(of("Characters")).toBe(`${zone?.char_height_px.toFixed(0)} px high`);
    expect(of("Motion blur")).toMatch(/px|not given/);
    expect(of("Infrared, near against far")).toMatch(/^\d.* × \(\d+\.\d stops\)$/);
  });

  test("a plate at one place is given a path along the way it faces", async () => {
    const plate = now().targets.find(({ subject }) => subject === "plate");
    if (!plate) throw new Error("the demo has a plate");
    useInHand.setState({ target: plate.id });
    draw(() => {
      const shown = shownOf(plate.id, HEAD);
      return <LanePanel shown={shown} calm={shown} />;
    });
    await userEvent.click(screen.getByRole("button", { name: "Draw its path" }));
    const held = now().targets.find(({ id }) => id === plate.id);
    const [from, to] = held?.shape.points ?? [];
    expect(held?.shape.kind).toBe("line");
    const bearing = (Math.atan2((to?.[0] ?? 0) - (from?.[0] ?? 0), (to?.[1] ?? 0) - (from?.[1] ?? 0)) * 180) / Math.PI;
    expect((bearing + 360) % 360).toBeCloseTo(plate.facing_deg ?? 0, 0);
  });
});

describe("which option", () => {
  test("an option keeps the cameras as they are, and taking one leaves the other in its place", async () => {
    draw(() => <DesignsPanel site={now()} />);
    const before = structuredClone(now().cameras);
    await userEvent.click(screen.getByRole("button", { name: "Save as option" }));
    expect(now().variants).toHaveLength(1);
    act(() =>
      useSite.getState().edit("Raise it", (site) => {
        const [first] = site.cameras;
        if (first) first.height_m = 9;
      }),
    );
    await userEvent.click(screen.getByRole("button", { name: "Use this option" }));
    await vi.waitFor(() => expect(now().cameras).toEqual(before));
    expect(now().variants?.[0]?.cameras[0]?.height_m).toBe(9);
    const [name] = now().variants?.map((one) => one.name) ?? [];
    await userEvent.click(screen.getByRole("button", { name: `Delete ${name}` }));
    expect(now().variants ?? []).toHaveLength(0);
  });
});
