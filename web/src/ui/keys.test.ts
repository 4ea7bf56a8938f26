// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from "vitest";
import { free } from "./keys";

/** Presses a key in an element of the page, and tells what the screen's own key did. */
function pressed(element: Element, key = "ArrowRight"): { acted: number; stopped: boolean } {
  document.body.append(element);
  const act = vi.fn();
  const screen = (event: KeyboardEvent): void => free(act)(event);
  window.addEventListener("keydown", screen as EventListener);
  const event = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true });
  element.dispatchEvent(event);
  window.removeEventListener("keydown", screen as EventListener);
  return { acted: act.mock.calls.length, stopped: event.defaultPrevented };
}

describe("a key of the whole screen", () => {
  afterEach(() => document.body.replaceChildren());

  it("acts where nothing else takes it", () => {
    expect(pressed(document.createElement("div"))).toEqual({ acted: 1, stopped: true });
  });

  it("is left to what has the focus and took it", () => {
    const chart = document.createElementNS("http://www.w3.org/2000/svg", "svg");
    chart.addEventListener("keydown", (event) => event.preventDefault());
    expect(pressed(chart).acted).toBe(0);
  });

  it("is left to a field, but not to one that takes no text", () => {
    expect(pressed(document.createElement("textarea"))).toEqual({ acted: 0, stopped: false });
    const radio = document.createElement("input");
    radio.type = "radio";
    expect(pressed(radio).acted).toBe(1);
  });
});
