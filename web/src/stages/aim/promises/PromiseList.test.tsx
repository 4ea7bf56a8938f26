// @vitest-environment happy-dom
/** Promises in their rows: how each stands, and in words what decides; the form changes the field that it names. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import { useSettings } from "../../../keep/settings";
import { useInHand } from "../../../model/inHand";
import { targetOf } from "../../../model/lookups";
import { answerTo } from "../../../testing/door";
import { demoSite, draw, now, open, shownOf } from "../../../testing/panels";
import { PromiseForm } from "./PromiseForm";
import { PromiseList } from "./PromiseList";

vi.mock("../../../core/port", async () => (await import("../../../testing/door")).door);

beforeEach(() => {
  open(demoSite("tern-quay"));
});

const list = () => draw(() => <PromiseList shown={shownOf(null, null)} />);
const row = (name: string): HTMLElement => {
  const found = screen.getAllByRole("listitem").find((item) => within(item).queryByText(name));
  if (!found) throw new Error(`there is no row ${name}`);
  return found;
};

test("each row tells what the core tells: verdict, density, and why", async () => {
  list();
  const { targets } = answerTo(now(), { ask: "sights", target: null, head: null }).summary;
  const reasons = answerTo(now(), { ask: "reasons", units: "metres" });
  await screen.findAllByTestId("promise-says");
  for (const result of targets) {
    const name = targetOf(now(), result.target)?.name ?? "";
    const held = within(row(name));
    expect(held.getByRole("img", { name: result.verdict }), name).toBeTruthy();
    const says = reasons.find(({ target }) => target === result.target)?.says ?? null;
    expect(held.queryByTestId("promise-says")?.textContent ?? null, name).toBe(says);
  }
  expect(
    screen.getByText(`${targets.filter(({ verdict }) => verdict === "kept").length} of ${targets.length} kept`),
  ).toBeTruthy();
});

test("a bar is shown where pixels decide or all is kept, and nowhere else", async () => {
  const { container } = list();
  await screen.findAllByTestId("promise-says");
  const reasons = answerTo(now(), { ask: "reasons", units: "metres" });
  const barred = reasons.filter(({ rule, says }) => says === null || rule === "pixel_density");
  expect(container.querySelectorAll(".need-bar")).toHaveLength(barred.length);
  expect(barred.length).toBeLessThan(reasons.length);
});

test("in feet a row has px/ft", async () => {
  useSettings.setState({ units: "feet" });
  list();
  await screen.findAllByTestId("promise-says");
  for (const item of screen.getAllByRole("listitem")) expect(item.textContent).toMatch(/px\/ft/);
});

test("a row that is pressed is selected, and the rows say which one is", async () => {
  list();
  await userEvent.click(within(row("Chandlery door")).getAllByRole("button")[0] as HTMLElement);
  expect(useInHand.getState().target).toBe(now().targets.find(({ name }) => name === "Chandlery door")?.id);
  expect(within(row("Chandlery door")).getByRole("button", { pressed: true })).toBeTruthy();
});

test("an empty site says what a promise is, and begins with one", async () => {
  open({ format: "bright-angle/site", version: 1, name: "Empty", obstacles: [], targets: [], cameras: [] });
  list();
  expect(screen.getByText(/A promise is something that must be seen/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Add a target" }));
  expect(useInHand.getState().placing).toBe("target");
});

const form = (id: string) =>
  draw(() => {
    const target = targetOf(now(), id);
    if (!target) throw new Error(`the demo has target ${id}`);
    return <PromiseForm target={target} />;
  });
const held = (id: string) => {
  const target = targetOf(now(), id);
  if (!target) throw new Error(`the demo has target ${id}`);
  return target;
};
async function type(label: string, text: string): Promise<void> {
  const dial = screen.getByRole("textbox", { name: label });
  await userEvent.clear(dial);
  await userEvent.type(dial, `${text}{Enter}`);
}

test("the figures of a promise go into their fields, and the words for nothing take them back", async () => {
  form("t1");
  await userEvent.click(screen.getByText("Figures of this promise"));
  await type("Own need", "120");
  await type("Cameras that must see it", "2");
  await type("Faces", "200");
  await type("Unseen, at most", "12");
  expect(held("t1")).toMatchObject({ heads_wanted: 2, facing_deg: 200 });
  expect(JSON.stringify(held("t1"))).toContain("120");
  await type("Own need", "by task");
  await type("Faces", "any");
  await type("Unseen, at most", "not stated");
  expect(held("t1").facing_deg ?? null).toBeNull();
  expect(JSON.stringify(held("t1"))).not.toContain("120");
});

test("a plate's speed is said as on the road, and kept in metres a second", async () => {
  open(demoSite("saltpan-lane"));
  const plate = now().targets.find(({ subject, shape }) => subject === "plate" && shape.kind === "line");
  if (!plate) throw new Error("the demo has a moving plate");
  form(plate.id);
  await userEvent.click(screen.getByText("Figures of this promise"));
  await type("Speed", "36");
  expect(held(plate.id).speed_mps).toBeCloseTo(10, 3);
  useSettings.setState({ units: "feet" });
  await type("Speed", "10 mph");
  // A mile is 1609.344 m.
  expect(held(plate.id).speed_mps).toBeCloseTo(4.4704, 3);
});

test("what cameras shall do is chosen in the form, and its row tells what comes of it", async () => {
  form("t1");
  await userEvent.click(screen.getByText("Figures of this promise"));
  await userEvent.click(screen.getByRole("combobox", { name: "Cameras shall" }));
  await userEvent.click(await screen.findByTitle("deter: be seen"));
  expect(held("t1").cameras_shall).toBe("deter");
  list();
  const [wish] = answerTo(now(), { ask: "wishes", units: "metres" });
  const told = await screen.findByTestId("promise-wish");
  expect(told.textContent).toContain(`Shall deter: ${wish?.verdict}. ${wish?.says}`);
  expect(within(told).getByRole("img", { name: wish?.verdict ?? "" })).toBeTruthy();
  await userEvent.click(screen.getByRole("combobox", { name: "Cameras shall" }));
  await userEvent.click(await screen.findByTitle("not said"));
  expect(held("t1")).not.toHaveProperty("cameras_shall");
  expect(screen.queryByTestId("promise-wish")).toBeNull();
});
