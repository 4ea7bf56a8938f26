// @vitest-environment happy-dom
/** The card of a camera, mounts, settings and where pictures come from, against the real core. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import type { Camera, Steps } from "../../core/types";
import { useSite } from "../../keep/store";
import { answerTo } from "../../testing/door";
import { demoSite, draw, now, open } from "../../testing/panels";
import { MountPanel } from "./MountPanel";
import { SettingsPanel } from "./SettingsPanel";
import { CameraCard } from "./card/CameraCard";
import { useFitView } from "./fitView";
import { Sources } from "../../pictures/Sources";
import type { RealPicture } from "../../pictures/realPicture";

vi.mock("../../core/port", async () => (await import("../../testing/door")).door);
vi.mock("./card/Expected", () => ({ Expected: () => null }));
const { takeSnapshot, takeStandIn, turnStandIn } = vi.hoisted(() => ({
  takeSnapshot: vi.fn(),
  takeStandIn: vi.fn(),
  turnStandIn: vi.fn(),
}));
vi.mock("../../device/cameraPicture", () => ({ takeSnapshot, takeStandIn, turnStandIn }));

const camera = (id: string): Camera => {
  const found = now().cameras.find((one) => one.id === id);
  if (!found) throw new Error(`no camera ${id}`);
  return found;
};
const stepsOf = (id: string): Steps => {
  const found = answerTo(now(), { ask: "steps" }).find((one) => one.camera === id);
  if (!found) throw new Error(`no card of ${id}`);
  return found;
};
const Card = () => <CameraCard site={now()} camera={camera("c3")} steps={stepsOf("c3")} settled />;

beforeEach(() => {
  for (const mock of [takeSnapshot, takeStandIn, turnStandIn]) mock.mockReset();
  open(demoSite("tern-quay"));
  useFitView.setState({ camera: null, tool: "day" });
});

test("a step is ticked, left for later, and a tick is taken back; an undo takes back one at a time", async () => {
  draw(Card);
  const step = (): HTMLElement => screen.getByTestId("fit-step");
  const first = step().dataset["step"];
  await userEvent.click(within(step()).getByRole("button", { name: "Done" }));
  expect(step().dataset["step"]).not.toBe(first);
  const second = step().dataset["step"];
  await userEvent.click(within(step()).getByRole("button", { name: "Later" }));
  expect(camera("c3").fitting?.done).toMatchObject([{ id: first }, { id: second, how: "later" }]);
  expect(stepsOf("c3").later).toEqual([second]);
  useSite.getState().undo();
  expect(camera("c3").fitting?.done).toHaveLength(1);
  await userEvent.click(screen.getByText("All steps"));
  const ticked = screen.getAllByRole("button", { pressed: true })[0];
  if (!ticked) throw new Error("nothing is ticked");
  await userEvent.click(ticked);
  expect(camera("c3").fitting?.done).toEqual([]);
});

test("the last step but what was left is asked again, and left out it closes the camera", async () => {
  const steps = stepsOf("c3").steps;
  useSite.getState().edit("All", (site) => {
    const c3 = site.cameras.find(({ id }) => id === "c3");
    if (c3)
      c3.fitting = {
        done: [
          ...steps.map(({ id }) => (id === "lanyard" ? { id, how: "later" as const } : { id })),
          { id: "later-again" },
        ],
      };
  });
  draw(Card);
  expect(screen.getByTestId("fit-state").textContent).toBe("Aimed");
  expect(screen.getByTestId("fit-step").textContent).toContain("Left for later");
  await userEvent.click(screen.getByRole("button", { name: "Leave it out" }));
  expect(screen.getByTestId("fit-done")).toBeTruthy();
  expect(screen.getByTestId("fit-state").textContent).toBe("Closed");
});

test("a part moves its camera as the core says, and taken off it is back", async () => {
  useFitView.setState({ camera: "c4" });
  const before = camera("c4").position;
  draw(() => <MountPanel site={now()} />);
  await screen.findByTestId("mount-checks");
  const add = screen.getByRole("combobox", { name: "Add a part" });
  await userEvent.click(add);
  await userEvent.click(await screen.findByTitle("Wall arm, 250 mm"));
  await vi.waitFor(() => expect(camera("c4").mount?.parts).toHaveLength(1));
  const [x = 0, y = 0] = camera("c4").position;
  expect(Math.hypot(x - (before[0] ?? 0), y - (before[1] ?? 0))).toBeCloseTo(0.25, 6);
  await userEvent.click(await screen.findByRole("button", { name: "Take Wall arm, 250 mm off" }));
  await vi.waitFor(() => expect(camera("c4").position).toEqual(before));
});

test("what one plate camera does is set at all of its kind, each keeping its own focus", async () => {
  useSite.getState().edit("Set", (site) => {
    const [c1, c2] = site.cameras;
    if (c1?.heads[0]?.exposure) c1.heads[0].exposure.gain_max_db = 6;
    if (c2?.heads[0]?.exposure) c2.heads[0].exposure.focus_m = 7;
  });
  draw(() => <SettingsPanel site={now()} />);
  const tells = await screen.findByRole("textbox", { name: "Who is told what, C1" });
  await userEvent.type(tells, "the yard master{Enter}");
  expect(camera("c1").reacts?.tells).toBe("the yard master");
  await userEvent.click(await screen.findByRole("button", { name: "To all of its kind: C2" }));
  expect(camera("c2").reacts?.tells).toBe("the yard master");
  expect(camera("c2").heads[0]?.exposure).toMatchObject({ gain_max_db: 6, focus_m: 7 });
});

test("a camera is asked at its own address, and name and password are kept nowhere", async () => {
  useSite.getState().edit("Note", (site) => {
    const c3 = site.cameras.find(({ id }) => id === "c3");
    if (c3)
      c3.device = {
        address: "192.168.50.21",
        picture_path: "/picture.jpg",
        picture_port: 8080,
        password_changed: true,
      };
  });
  takeSnapshot.mockResolvedValue({ blob: new Blob(["x"]), clockOffS: null });
  const taken = vi.fn().mockResolvedValue(undefined);
  const real: RealPicture = {
    held: null,
    url: null,
    fault: "",
    put: vi.fn(),
    drop: vi.fn(),
    coming: false,
    again: null,
    take: taken,
    awaits: (work) => work(),
    say: vi.fn(),
  };
  const [head] = camera("c3").heads;
  if (!head) throw new Error("no head");
  draw(() => <Sources site={now()} camera={camera("c3")} head={head} real={real} />);
  await userEvent.click(screen.getByRole("button", { name: "Its address" }));
  await userEvent.type(screen.getByRole("textbox", { name: "Name" }), "fitter");
  const password = screen.getByLabelText("Password");
  await userEvent.type(password, "s3cret");
  await userEvent.click(screen.getByRole("button", { name: "Take it" }));
  await vi.waitFor(() => expect(taken).toHaveBeenCalledTimes(1));
  expect(takeSnapshot).toHaveBeenCalledWith({
    address: "192.168.50.21",
    port: 8080,
    path: "/picture.jpg",
    as_it_is: false,
    user: "fitter",
    password: "s3cret",
  });
  expect((password as HTMLInputElement).value).toBe("");
  // Nothing that holds the password stays to ask with it again.
  expect(taken.mock.calls[0]?.[2]).toBeUndefined();
  expect(JSON.stringify(now())).not.toContain("s3cret");
});

test("a camera that does not answer is said, and the one before stays", async () => {
  takeStandIn.mockRejectedValue(new Error("the camera does not answer: nobody is there"));
  const say = vi.fn();
  const real: RealPicture = {
    held: null,
    url: null,
    fault: "",
    put: vi.fn(),
    drop: vi.fn(),
    coming: false,
    again: null,
    take: vi.fn(),
    awaits: (work) => work(),
    say,
  };
  const [head] = camera("c3").heads;
  if (!head) throw new Error("no head");
  draw(() => <Sources site={now()} camera={camera("c3")} head={head} real={real} />);
  await userEvent.click(screen.getByRole("button", { name: "Stand-in" }));
  await vi.waitFor(() => expect(say).toHaveBeenLastCalledWith("the camera does not answer: nobody is there"));
  expect(real.drop).not.toHaveBeenCalled();
});
