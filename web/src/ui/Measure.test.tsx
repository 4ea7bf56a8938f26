// @vitest-environment happy-dom
/** A dial: what is typed is taken, refused in place, or taken back; nothing typed is lost. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test, vi } from "vitest";
import { Measure, length, plain, whole } from "./Measure";

afterEach(cleanup);

const dial = (): HTMLInputElement => screen.getByRole("textbox");

function height(value: number, onChange = vi.fn(), units: "metres" | "feet" = "metres") {
  return (
    <Measure of="c1" label="Height" value={value} quantity={length(units)} min={0.05} max={500} onChange={onChange} />
  );
}

test.each([
  ["3.6", 3.6],
  ["3,6 m", 3.6],
  ["360 cm", 3.6],
  ["11' 10\"", 3.6068],
  ["142 in", 3.6068],
])("%s is taken with Enter", async (text, metres) => {
  const onChange = vi.fn();
  render(height(2.7, onChange));
  await userEvent.clear(dial());
  await userEvent.type(dial(), `${text}{Enter}`);
  expect(onChange).toHaveBeenCalledExactlyOnceWith(expect.closeTo(metres, 4), false);
});

test("a bare number is in the unit in use", async () => {
  const onChange = vi.fn();
  render(height(2.7, onChange, "feet"));
  await userEvent.clear(dial());
  await userEvent.type(dial(), "10{Enter}");
  expect(onChange).toHaveBeenCalledExactlyOnceWith(expect.closeTo(3.048, 4), false);
});

test.each([
  ["nonsense", /is no height/],
  ["501", /from 0.05 m to 500.00 m/],
  ["0", /from 0.05 m to 500.00 m/],
])("%s is refused in place and changes nothing", async (text, says) => {
  const onChange = vi.fn();
  render(height(2.7, onChange));
  await userEvent.clear(dial());
  await userEvent.type(dial(), `${text}{Enter}`);
  expect(screen.getByRole("alert").textContent).toMatch(says);
  expect(dial().getAttribute("aria-invalid")).toBe("true");
  expect(dial().value).toBe(text);
  await userEvent.keyboard("{Escape}");
  expect(screen.queryByRole("alert")).toBeNull();
  expect(dial().value).toBe("2.70 m");
  expect(onChange).not.toHaveBeenCalled();
});

test("what is typed is taken when the hand leaves the field, and when the field goes", async () => {
  const onChange = vi.fn();
  const { unmount } = render(height(2.7, onChange));
  await userEvent.clear(dial());
  await userEvent.type(dial(), "4");
  await userEvent.tab();
  expect(onChange).toHaveBeenLastCalledWith(4, false);
  await userEvent.clear(dial());
  await userEvent.type(dial(), "5");
  unmount();
  expect(onChange).toHaveBeenLastCalledWith(5, false);
  expect(onChange).toHaveBeenCalledTimes(2);
});

test("what is typed for one thing never goes to another", async () => {
  const [first, second] = [vi.fn(), vi.fn()];
  const of = (thing: string, onChange: typeof first) => (
    <Measure of={thing} label="Height" value={2} quantity={length("metres")} min={0} max={9} onChange={onChange} />
  );
  const { rerender } = render(of("c1", first));
  await userEvent.clear(dial());
  await userEvent.type(dial(), "3");
  rerender(of("c2", second));
  expect(first).toHaveBeenCalledExactlyOnceWith(3, false);
  expect(second).not.toHaveBeenCalled();
  expect(dial().value).toBe("2.00 m");
});

test("keys turn it by its step, ten with Shift, a tenth with Alt, and stop at its ends", () => {
  const onChange = vi.fn();
  const tilt = (
    <Measure of="c1" label="Tilt" value={89} quantity={plain("°", 1, 1)} min={-90} max={90} onChange={onChange} />
  );
  render(tilt);
  fireEvent.keyDown(dial(), { key: "ArrowDown" });
  expect(onChange).toHaveBeenLastCalledWith(88, true);
  fireEvent.keyDown(dial(), { key: "ArrowDown", altKey: true });
  expect(onChange).toHaveBeenLastCalledWith(87.9, true);
  fireEvent.keyDown(dial(), { key: "ArrowUp", shiftKey: true });
  expect(onChange).toHaveBeenLastCalledWith(90, true);
});

test("the word for nothing said, and an empty field, take a figure back", async () => {
  const [onChange, onEmpty] = [vi.fn(), vi.fn()];
  const need = (value: number | null) => (
    <Measure
      of="t1"
      label="Own need"
      value={value}
      empty={{ word: "by task", onEmpty }}
      quantity={plain("px/m", 1, 5)}
      min={1}
      max={5000}
      onChange={onChange}
    />
  );
  const { rerender } = render(need(120));
  for (const text of ["by task", "By Task"]) {
    await userEvent.clear(dial());
    await userEvent.type(dial(), `${text}{Enter}`);
  }
  await userEvent.clear(dial());
  await userEvent.keyboard("{Enter}");
  expect(onEmpty).toHaveBeenCalledTimes(3);
  rerender(need(null));
  expect(dial().value).toBe("by task");
  await userEvent.clear(dial());
  await userEvent.keyboard("{Enter}");
  expect(onEmpty).toHaveBeenCalledTimes(3);
  expect(onChange).not.toHaveBeenCalled();
});

test("a count takes whole numbers only", async () => {
  const onChange = vi.fn();
  render(<Measure of="t1" label="Cameras" value={1} quantity={whole("")} min={1} max={9} onChange={onChange} />);
  await userEvent.clear(dial());
  await userEvent.type(dial(), "2.5{Enter}");
  expect(screen.getByRole("alert")).toBeTruthy();
  await userEvent.clear(dial());
  await userEvent.type(dial(), "2{Enter}");
  expect(onChange).toHaveBeenCalledExactlyOnceWith(2, false);
});

test("the same quantity is the same one, so that nothing is drawn again for it", () => {
  expect(plain("°", 1, 1)).toBe(plain("°", 1, 1));
  expect(plain("°", 1, 1)).not.toBe(plain("°", 2, 1));
  expect(length("feet")).toBe(length("feet"));
  expect(length("feet")).not.toBe(length("metres"));
  expect(whole("")).toBe(whole(""));
});
