// @vitest-environment happy-dom
/** One line a camera: a distance is typed, finished cameras stand there, one is taken and hangs where it was promised. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import type { SiteFile } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { answerTo } from "../../../testing/door";
import { draw, now, open } from "../../../testing/panels";
import { LinesStep } from "./LinesStep";

vi.mock("../../../core/port", async () => (await import("../../../testing/door")).door);

const door = (id: string, name: string, importance: number): SiteFile["targets"][number] => ({
  id,
  name,
  subject: "face",
  task: "identify",
  shape: { kind: "point", points: [[importance * 6, 0]] },
  height_m: 1.6,
  facing_deg: null,
  speed_mps: 0,
  heads_wanted: 1,
  importance,
  distance: { how: "plan" },
});

beforeEach(() => {
  useSettings.setState({ taken: {}, units: "metres" });
  open({
    format: "bright-angle/site",
    version: 1,
    name: "Home",
    targets: [door("t2", "Side door", 2), door("t1", "Main entrance", 1)],
    cameras: [],
  });
});

const step = (item: string | null = null) => draw(() => <LinesStep site={now()} item={item} />);
async function typeDistance(text: string): Promise<void> {
  await userEvent.type(screen.getByRole("textbox", { name: /^Distance/ }), `${text}{Enter}`);
}

test("what matters most comes first; a typed distance brings lines that the core stands for, and the first is taken", async () => {
  step();
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Main entrance");
  await typeDistance("5");
  const [first] = await screen.findAllByTestId("finished-line");
  if (!first) throw new Error("there is a line");
  const spot = now().spots?.[0]?.id ?? "";
  const wish = { target: "t1", spot, near: false, usual: [], like: null };
  const told = answerTo(now(), { ask: "finished_lines", wish, units: "metres" }).lines[0];
  expect(within(first).getByRole("heading", { level: 2 }).textContent).toContain(told?.camera.model.name);
  await userEvent.click(within(first).getByRole("button", { name: /^Take / }));
  await vi.waitFor(() => expect(now().cameras).toHaveLength(1));
  expect(now().cameras[0]?.model.name).toBe(told?.camera.model.name);
  const sights = answerTo(now(), { ask: "sights", target: null, head: null });
  expect(sights.summary.targets.find(({ target }) => target === "t1")?.verdict).toBe(told?.verdict);
  expect(told?.verdict).not.toBe("broken");
});

test("what was taken for such a target is usual from then on", async () => {
  step("t1");
  await typeDistance("5");
  const lines = await screen.findAllByTestId("finished-line");
  const last = lines.at(-1);
  if (!last) throw new Error("there is a line");
  const name = within(last).getByRole("heading", { level: 2 }).textContent.trim();
  await userEvent.click(within(last).getByRole("button", { name: /^Take / }));
  await vi.waitFor(() => expect(now().cameras).toHaveLength(1));
  expect(useSettings.getState().taken["face/identify"]).toEqual([name]);
});

test("without a target it says what to do first", () => {
  open({ format: "bright-angle/site", version: 1, name: "Home", targets: [], cameras: [] });
  step();
  expect(screen.getByText(/A camera is taken for a target/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Say what kind of site it is" })).toBeTruthy();
});
