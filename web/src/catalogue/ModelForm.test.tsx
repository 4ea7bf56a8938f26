// @vitest-environment happy-dom
/** The form of a model: what its lens does stands there while one types, and nothing that makes no sense is kept. */
import { readFileSync } from "node:fs";
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import type { Ask, Fault, Model, SiteFile } from "../core/types";
import { answerTo } from "../testing/door";
import { ModelForm } from "./ModelForm";
import { draftOf } from "./draft";

const NONE: SiteFile = { format: "bright-angle/site", version: 1, name: "None", targets: [], cameras: [] };

vi.mock("../core/port", async () => {
  const { door } = await import("../testing/door");
  const { Refused } = await import("../core/errors");
  // As the port does it: what the core refuses comes as its faults.
  const askAnywhere = (question: Ask) =>
    door.ask(NONE, question).catch((thrown: unknown) => {
      throw new Refused(JSON.parse(thrown as string) as Fault[]);
    });
  return { ...door, askAnywhere };
});

const MODELS = JSON.parse(readFileSync("../crates/core/data/catalogue.json", "utf8")) as Model[];
const turret = (): Model => {
  const found = MODELS.find(
    ({ form, lens }) => form === "turret" && lens.focal_min_mm === 2.8 && lens.focal_max_mm === 12,
  );
  if (!found) throw new Error("a turret ships");
  return structuredClone(found);
};

afterEach(cleanup);

function form(model: Model, taken: string[] = []) {
  const save = vi.fn<(model: Model) => void>();
  const close = vi.fn();
  render(<ModelForm draft={draftOf(model)} taken={new Set(taken)} save={save} close={close} />);
  return { save, close };
}

const keep = (): HTMLElement => screen.getByRole("button", { name: "Keep it" });

test("what the lens does is what the core says of the model as it is typed", async () => {
  const { save } = form(turret());
  const rows = async () => within(await screen.findByRole("table", { name: "What the lens does" })).getAllByRole("row");
  const before = (await rows())[1]?.textContent;
  const field = screen.getByLabelText(/^Field across, shortest/);
  await userEvent.clear(field);
  await userEvent.type(field, "98");
  const typed = turret();
  typed.lens.hfov_at_min_deg = 98;
  const facts = answerTo(NONE, { ask: "lens_facts", model: typed });
  const [, density = 0] = facts.ends[0]?.px_per_m[0] ?? [];
  await waitFor(async () => expect((await rows())[1]?.textContent).toContain(String(Math.round(density))));
  expect((await rows())[1]?.textContent).not.toBe(before);
  await userEvent.click(keep());
  expect(save.mock.calls).toEqual([[typed]]);
});

test("a field that makes no sense, or a name twice, is said and not kept", async () => {
  const { save } = form(turret(), ["Mine"]);
  const name = screen.getByLabelText(/^Name/);
  await userEvent.clear(name);
  expect(screen.getByRole("status").textContent).toContain("Name is missing");
  await userEvent.type(name, "Mine");
  expect(screen.getByRole("status").textContent).toContain("another camera goes by this name");
  expect(keep()).toHaveProperty("disabled", true);
  await userEvent.type(name, " too{Enter}");
  expect(save).toHaveBeenCalledOnce();
});

test("what the core refuses stands there in its words, and is left by a press", async () => {
  const { save, close } = form(turret());
  const far = screen.getByLabelText(/^Focal length, longest/);
  await userEvent.clear(far);
  await userEvent.type(far, "1");
  await waitFor(() => expect(screen.getByRole("status").textContent).not.toBe(""));
  await userEvent.click(keep());
  expect(save).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole("button", { name: "Leave it" }));
  expect(close).toHaveBeenCalledOnce();
});
