// @vitest-environment happy-dom
/** The list of what is proved, a visit, the trainer and its scores, against the real core. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import type { Proof, SiteFile } from "../../core/types";
import { useLessons } from "../../keep/lessons";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { answerTo } from "../../testing/door";
import { demoSite, draw, now, open } from "../../testing/panels";
import { TrainerPanel } from "./TrainerPanel";
import { UpkeepPanel } from "./UpkeepPanel";
import { WalkPanel } from "./WalkPanel";
import { dropProof, keepProof } from "./proveEdits";
import { useProveView } from "./proveView";

vi.mock("../../core/port", async () => (await import("../../testing/door")).door);
vi.mock("../../core/usePicture", () => ({ usePicture: () => ({ shown: null, settled: false }) }));

/** The demo with a picture of C4 kept half a year ago, and 14 days promised. */
function handedOver(): SiteFile {
  const site = demoSite("tern-quay");
  const hung = answerTo(site, { ask: "hung", head: { camera: "c4", head: "h1" } });
  const picture = { picture: "a".repeat(64), width_px: 1280, height_px: 724 };
  const snapshots = [{ id: "s1", camera: "c4", head: "h1", at: "2027-01-15T10:00:00Z", picture, hung }];
  return { ...site, brief: { ...site.brief, retention_days: 14 }, snapshots };
}

beforeEach(() => {
  open(handedOver());
  useSettings.setState({ surveyor: "Ana" });
  useProveView.setState({ night: false, on: "2027-08-01" });
  useLessons.getState().forget();
});

test("a walk test shows in the list, counts until the camera is turned, and is taken back by an undo", () => {
  const hung = answerTo(now(), { ask: "hung", head: { camera: "c4", head: "h1" } });
  const proof: Proof = {
    id: "p1",
    target: "t1",
    camera: "c4",
    head: "h1",
    how: { kind: "yes", yes: true },
    hung,
    needed_px_per_m: 250,
  };
  draw(() => <WalkPanel site={now()} proved={answerTo(now(), { ask: "proved" })} settled item={null} />);
  const row = (): HTMLElement => screen.getByTestId("prove-t1");
  expect(row().textContent).toContain("not tried yet");
  keepProof(proof, "Fuel berth till");
  draw(() => <WalkPanel site={now()} proved={answerTo(now(), { ask: "proved" })} settled item={null} />);
  expect(screen.getAllByTestId("prove-t1").at(-1)?.dataset["day"]).toBe("kept");
  dropProof("p1", "Fuel berth till");
  expect(now().proofs).toEqual([]);
  useSite.getState().undo();
  expect(now().proofs).toHaveLength(1);
});

test("a visit is begun, ticked in an order that stays, says how far recordings go back, and closes as a log", async () => {
  draw(() => <UpkeepPanel site={now()} item={now().visits?.[0]?.id ?? null} />);
  await screen.findByTestId("due-cover.c4");
  expect(screen.getByTestId("not-begun").textContent).toContain("C1");
  await userEvent.click(screen.getByRole("button", { name: "Begin a visit" }));
  expect(now().visits).toMatchObject([{ date: "2027-08-01", by: "Ana" }]);
  const items = (): string[] =>
    screen.getAllByTestId(/^item-/).map((item) => item.dataset["testid"]?.slice("item-".length) ?? "");
  const before = items();
  const cover = screen.getByTestId("item-cover.c4");
  await userEvent.click(within(cover).getByRole("button", { name: "Done" }));
  expect(screen.getByTestId("item-cover.c4").dataset["how"]).toBe("done");
  // What is ticked is due no more, and stays where it was.
  expect(items()).toEqual(before);
  await userEvent.type(
    within(screen.getByTestId("item-cover.c4")).getByRole("textbox", { name: "Found" }),
    "webs{Enter}",
  );
  const playback = (): HTMLElement => screen.getByTestId(/^item-playback\./);
  await userEvent.click(within(playback()).getByRole("button", { name: "Done" }));
  await userEvent.type(within(playback()).getByLabelText("Oldest recording"), "2027-07-27");
  expect(within(playback()).getByTestId("oldest-says").textContent).toBe("5 days back, 14 promised");
  await userEvent.click(screen.getByRole("button", { name: /^Close it/ }));
  expect(now().visits?.[0]?.closed).toBe(true);
  const log = answerTo(now(), { ask: "log_csv" });
  expect(log).toContain('2027-08-01,Ana,"Clean the cover of C4: soft cloth, no solvent",done,webs,,');
  expect(log).toContain(",done,,5,14");
  // A yard's covers come every three months.
  const due = answerTo(now(), { ask: "due", on: "2027-08-02" });
  expect(due.items.find(({ id }) => id === "cover.c4")?.due).toBe("2027-11-01");
});

test("a question is answered once, told why, and noted on this device alone", async () => {
  draw(() => <TrainerPanel site={now()} />);
  const question = await screen.findByTestId("question");
  const options = within(question).queryAllByRole("listitem");
  const option = options[0];
  if (option) await userEvent.click(within(option).getByRole("button"));
  else {
    const slider = screen.getByRole<HTMLInputElement>("slider", { name: "Your answer" });
    slider.focus();
    await userEvent.keyboard("{ArrowRight}");
    const { fireEvent } = await import("@testing-library/react");
    fireEvent.change(slider, { target: { value: slider.max } });
  }
  await userEvent.click(screen.getByRole("button", { name: "That is it" }));
  expect(screen.getByTestId("truth").textContent).toMatch(/^(Right|Not quite): /);
  const figures = (): number =>
    Object.values(useLessons.getState().scores).reduce((sum, score) => sum + score.right + score.wrong, 0);
  expect(figures()).toBe(1);
  expect(screen.queryByRole("button", { name: "That is it" })).toBeNull();
  expect(JSON.stringify(now())).not.toContain("lessons");
});
