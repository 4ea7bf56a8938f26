// @vitest-environment happy-dom
/** The first steps: what an empty site begins with, and one sentence at a time that goes once it is done. */
import { act, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test } from "vitest";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { demoSite, draw, now, open } from "../../testing/panels";
import { FirstSteps } from "./FirstSteps";

beforeEach(() => {
  useSettings.setState({ led: false });
  open({ format: "bright-angle/site", version: 1, name: "New", obstacles: [], targets: [], cameras: [] });
});

const steps = () => draw(() => <FirstSteps site={now()} id="11111111-1111-4111-8111-111111111111" />);
const edit = (change: Parameters<ReturnType<typeof useSite.getState>["edit"]>[1]): void =>
  act(() => useSite.getState().edit("Step", change));
const quay = demoSite("tern-quay");

test("an empty site offers a picture, a sketch, and a promise", async () => {
  steps();
  await userEvent.click(screen.getByRole("button", { name: "Pace out a sketch" }));
  expect(location.hash).toMatch(/survey\/drawing/);
  expect(screen.getByRole("button", { name: "Bring in a picture" })).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Begin with a promise" }));
  expect(useInHand.getState().placing).toBe("target");
  // While something is put down nothing else is said.
  expect(screen.queryByRole("button")).toBeNull();
});

test("a site that was drawn already begins with a promise", () => {
  edit((site) => void (site.obstacles = structuredClone(quay.obstacles ?? [])));
  steps();
  expect(screen.getByText(/Walls and objects are there/)).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Pace out a sketch" })).toBeNull();
});

test("after the first promise a camera is asked for, then a word on what to do, and then nothing more", async () => {
  steps();
  edit((site) => void site.targets.push(structuredClone(quay.targets[0] as (typeof quay.targets)[number])));
  await userEvent.click(screen.getByRole("button", { name: "Put a camera on the plan" }));
  expect(useInHand.getState().placing).toBe("camera");
  act(() => useInHand.setState({ placing: null }));
  edit((site) => {
    const camera = structuredClone(quay.cameras[3] as (typeof quay.cameras)[number]);
    delete camera.spot;
    delete camera.mounted_on;
    site.cameras.push(camera);
  });
  expect(screen.getByText(/press Try at one of the ways/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Got it" }));
  expect(screen.queryByText(/press Try/)).toBeNull();
  expect(useSettings.getState().led).toBe(true);
});

test("a site with cameras and no promise asks what they must see", async () => {
  edit((site) => void site.cameras.push(structuredClone(quay.cameras[3] as (typeof quay.cameras)[number])));
  steps();
  await userEvent.click(screen.getByRole("button", { name: "Begin with a promise" }));
  expect(useInHand.getState().placing).toBe("target");
});
