// @vitest-environment happy-dom
/** What is selected on the Wire stage, against the real core: a camera's way, a way to mend it, what is noted, the switch. */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test, vi } from "vitest";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { nodeOf } from "../../model/network";
import { demoSite, draw, now, open } from "../../testing/panels";
import { answerTo } from "../../testing/door";
import { HeldPanel } from "./HeldPanel";
import { RunsList } from "./RunsList";
import { StorePanel } from "./StorePanel";
import { WiredContext, useWired } from "./wired";

vi.mock("../../core/port", async () => (await import("../../testing/door")).door);
const { readSwitch } = vi.hoisted(() => ({ readSwitch: vi.fn() }));
vi.mock("../../device/managedSwitch", () => ({ readSwitch }));

function Panels({ which }: { which: "list" | "store" }) {
  const site = now();
  const shown = useWired(site);
  return (
    <WiredContext.Provider value={shown}>
      {which === "list" ? <RunsList site={site} /> : <StorePanel site={site} />}
      <HeldPanel site={site} />
    </WiredContext.Provider>
  );
}

beforeEach(() => {
  useSettings.setState({ units: "metres" });
  useInHand.setState({ thing: null, head: null });
  readSwitch.mockReset();
  open(demoSite("tern-quay"));
});

test("the worst run comes first; chosen, its whole way stands there, and a way mends it as the core says", async () => {
  draw(() => <Panels which="list" />);
  const list = await screen.findByRole("region", { name: "Runs" });
  await vi.waitFor(() => expect(within(list).getAllByRole("listitem").length).toBeGreaterThan(6));
  const [first] = within(list).getAllByRole("listitem");
  expect(first?.textContent).toContain("class 5 wanted");
  await userEvent.click(within(list).getByRole("button", { name: /C6/ }));
  const way = await screen.findByRole("list", { name: "Its way" });
  expect(way.textContent).toContain("Recorder, office");
  await userEvent.click(within(way).getByRole("button", { name: /103 m/ }));
  await userEvent.click(await screen.findByRole("button", { name: /^Do it: Put a repeater half-way/ }));
  await vi.waitFor(() => expect(now().network?.nodes?.some((node) => node.kind === "repeater")).toBe(true));
  const told = answerTo(now(), { ask: "wire" });
  expect(told.runs.find(({ camera }) => camera === "c6")?.verdict).toBe("kept");
});

test("a figure and a name of a box are taken; what is wrong is not, and a password is only ticked", async () => {
  useInHand.getState().take({ kind: "node", id: "nvr1" });
  draw(() => <Panels which="list" />);
  const budget = await screen.findByRole("textbox", { name: "Power budget" });
  await userEvent.clear(budget);
  await userEvent.type(budget, "60{Enter}");
  expect(nodeOf(now(), "nvr1")?.budget_w).toBe(60);
  await userEvent.click(screen.getByText("On the network"));
  const address = screen.getByRole("textbox", { name: /^Address/ });
  await userEvent.type(address, "192.168.50.300");
  await userEvent.tab();
  expect(screen.getByText(/four figures such as/)).toBeTruthy();
  expect(nodeOf(now(), "nvr1")?.device).toBeUndefined();
  await userEvent.clear(address);
  await userEvent.type(address, "192.168.50.30");
  await userEvent.tab();
  await userEvent.click(screen.getByRole("switch", { name: /password changed/ }));
  expect(nodeOf(now(), "nvr1")?.device).toEqual({ address: "192.168.50.30", password_changed: true });
});

test("what is typed and not taken yet is taken when another thing is chosen", async () => {
  useInHand.getState().take({ kind: "node", id: "nvr1" });
  draw(() => <Panels which="list" />);
  await userEvent.click(await screen.findByText("On the network"));
  await userEvent.type(screen.getByRole("textbox", { name: "Firmware" }), "4.1.2");
  useInHand.getState().take({ kind: "node", id: "in1" });
  await vi.waitFor(() => expect(nodeOf(now(), "nvr1")?.device?.firmware).toBe("4.1.2"));
});

test("a switch that is away says so; one that answers is held against the plan", async () => {
  useInHand.getState().take({ kind: "node", id: "nvr1" });
  draw(() => <Panels which="list" />);
  readSwitch.mockRejectedValueOnce(new Error("the switch does not answer: it is silent"));
  const read = await screen.findByRole("button", { name: "Read the recorder" });
  await userEvent.click(read);
  expect((await screen.findByRole("alert")).textContent).toContain("does not answer");
  const ports = [1, 2, 3, 4, 5, 6, 7].map((port) => ({
    port,
    link_mbps: 1000,
    watts: 0,
    length_m: null,
    joint_m: port === 2 ? 80 : null,
    overload: false,
  }));
  readSwitch.mockResolvedValueOnce({ name: "switch", ports, stored_gb_per_day: null });
  await userEvent.click(read);
  await vi.waitFor(() =>
    expect(screen.getByTestId("switch-differs").textContent).toContain("Port 2, C6: bad joint 80 m"),
  );
  expect(screen.queryByRole("alert")).toBeNull();
});

test("the days are promised only when somebody says so, and the brief's days are followed", async () => {
  draw(() => <Panels which="store" />);
  const told = await screen.findByTestId("store-told");
  expect(told.textContent).toContain("for 14 days");
  expect(now().brief?.retention_days).toBeUndefined();
  await userEvent.click(screen.getByRole("button", { name: "Promise 14 days" }));
  expect(now().brief?.retention_days).toBe(14);
  useSite.getState().edit("Another hand", (site) => {
    site.brief = { ...site.brief, retention_days: 30 };
  });
  await vi.waitFor(() => expect(screen.getByTestId("store-told").textContent).toContain("for 30 days"));
  expect(screen.getByRole("heading", { name: "What gives" })).toBeTruthy();
});
