// @vitest-environment happy-dom
/** Why a place is seen or not, and which cameras somebody sees who stands there. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import { cameraOf } from "../../../model/lookups";
import { answerTo } from "../../../testing/door";
import { demoSite, draw, now, open } from "../../../testing/panels";
import { WhyCard } from "./WhyCard";
import { useGroundView } from "./groundView";

vi.mock("../../../core/port", async () => (await import("../../../testing/door")).door);

const AT: [number, number] = [12, 20];

beforeEach(() => {
  open(demoSite("tern-quay"));
  useGroundView.getState().set({ asked: AT });
});

test("every camera is told as the core tells it: whether it sees the place, and whether it is seen from there", async () => {
  draw(() => <WhyCard site={now()} units="metres" />);
  const seen = answerTo(now(), { ask: "seen_from", at: AT, ground_m: 0, units: "metres" });
  const here = await screen.findByTestId("seen-here");
  const rows = within(here).getAllByRole("listitem");
  expect(rows).toHaveLength(now().cameras.length);
  seen.cameras.forEach((camera, place) => {
    const name = cameraOf(now(), camera.camera)?.name ?? "";
    expect(rows[place]?.textContent).toBe(`${camera.seen ? "seen" : "not seen"}${name} ${camera.says}`);
  });
  const count = seen.cameras.filter((camera) => camera.seen).length;
  expect(count).toBeGreaterThan(0);
  expect(here.querySelector("summary")?.textContent).toContain(`${count} of ${seen.cameras.length}`);
});

test("a place is asked about until that is done", async () => {
  draw(() => <WhyCard site={now()} units="feet" />);
  await screen.findByTestId("seen-here");
  await userEvent.click(screen.getByRole("button", { name: "Done" }));
  expect(useGroundView.getState().asked).toBeNull();
  expect(screen.queryByTestId("seen-here")).toBeNull();
});
