// @vitest-environment happy-dom
/** Phones at the desk and on a phone: the switch, who is paired and ended, and what is said when the desk does not answer. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { App } from "antd";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Share } from "../core/types";
import { request } from "../keep/http";
import { PhonesPage } from "./PhonesPage";

vi.mock("../keep/http", async (real) => ({ ...(await real<object>()), request: vi.fn() }));

const answers = vi.mocked(request);
const CLOSED: Share = {
  door: { wanted: false, addresses: [], fingerprint: "", wrong: null },
  devices: [],
  trust_qr_svg: null,
};
const OPEN: Share = {
  ...CLOSED,
  door: { wanted: true, addresses: ["https://192.168.7.20:8443"], fingerprint: "AB:CD", wrong: null },
  devices: [
    { id: "d1", name: "Van phone", paired_at: "2026-11-28T09:00:00Z", seen_at: "2026-11-29T10:00:00Z" },
    { id: "d2", name: "Tablet", paired_at: "2026-11-27T09:00:00Z", seen_at: "2026-11-27T10:00:00Z" },
  ],
};

let share: Share;
let device: string | null;

beforeEach(() => {
  share = CLOSED;
  device = null;
  answers.mockImplementation((method, path, body) => {
    if (path === "/api/share/me") return Promise.resolve({ device, fingerprint: "AB:CD" } as never);
    if (method === "PUT" && path === "/api/share") {
      share = (body as { open: boolean }).open ? OPEN : CLOSED;
      return Promise.resolve(share as never);
    }
    if (method === "DELETE") {
      share = { ...share, devices: share.devices.filter(({ id }) => !path.endsWith(`/${id}`)) };
      return Promise.resolve(null as never);
    }
    if (path === "/api/share") return Promise.resolve(share as never);
    return Promise.reject(new Error(`nobody answers ${method} ${path}`));
  });
});
afterEach(() => {
  cleanup();
  vi.clearAllMocks();
});

const page = () =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <App>
        <PhonesPage />
      </App>
    </QueryClientProvider>,
  );

test("the desk opens the door by its switch, sees who is paired, and ends one of them", async () => {
  page();
  const door = await screen.findByRole("switch");
  expect(door).toHaveProperty("checked", false);
  await userEvent.click(door);
  const devices = await screen.findAllByTestId("device");
  expect(devices.map((row) => within(row).getByText(/phone|Tablet/).textContent)).toEqual(["Van phone", "Tablet"]);
  expect(screen.getByText(/Open at https:\/\/192\.168\.7\.20:8443/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "End Van phone" }));
  expect(answers.mock.calls).toContainEqual(["DELETE", "/api/share/devices/d1", null]);
  await vi.waitFor(() => expect(screen.getAllByTestId("device")).toHaveLength(1));
});

test("what does not go is said, and the switch stands as the door does", async () => {
  page();
  const door = await screen.findByRole("switch");
  answers.mockImplementation((method) =>
    method === "PUT" ? Promise.reject(new Error("the port is taken")) : Promise.resolve(CLOSED as never),
  );
  await userEvent.click(door);
  expect((await screen.findByRole("alert")).textContent).toContain("the port is taken");
  await vi.waitFor(() => expect(door).toHaveProperty("checked", false));
});

test("on a phone it says what it is called there, and opens nothing", async () => {
  device = "Van phone";
  page();
  expect((await screen.findByText(/This device is paired as/)).textContent).toContain("Van phone");
  expect(screen.queryByRole("switch")).toBeNull();
});

test("a desk that does not answer is no blank page", async () => {
  answers.mockRejectedValue(new Error("it is switched off"));
  page();
  expect((await screen.findByRole("alert")).textContent).toContain("it is switched off");
});
