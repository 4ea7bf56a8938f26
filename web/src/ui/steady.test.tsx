// @vitest-environment happy-dom
/** Controls under a hand: not drawn again for handlers that were made anew, and never an old handler called. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { same, steady } from "./steady";

afterEach(cleanup);

interface ButtonProps {
  says: string;
  options: { value: number; label: string }[];
  onPress(at: number): void;
}

function counted(): { Button: React.ComponentType<ButtonProps>; drawn: () => number } {
  let times = 0;
  const Plain = ({ says, options, onPress }: ButtonProps): React.ReactElement => {
    times++;
    return <button onClick={() => onPress(options.length)}>{says}</button>;
  };
  return { Button: steady(Plain), drawn: () => times };
}

test("a control with the same data is drawn once, and its newest handler is called", () => {
  const { Button, drawn } = counted();
  const [first, second] = [vi.fn(), vi.fn()];
  const options = (): ButtonProps["options"] => [{ value: 1, label: "one" }];
  const { rerender } = render(<Button says="Press" options={options()} onPress={first} />);
  rerender(<Button says="Press" options={options()} onPress={second} />);
  rerender(<Button says="Press" options={options()} onPress={second} />);
  expect(drawn()).toBe(1);
  fireEvent.click(screen.getByRole("button"));
  expect(first).not.toHaveBeenCalled();
  expect(second).toHaveBeenCalledWith(1);
  // Also after it was pressed once.
  const third = vi.fn();
  rerender(<Button says="Press" options={options()} onPress={third} />);
  fireEvent.click(screen.getByRole("button"));
  expect(second).toHaveBeenCalledTimes(1);
  expect(third).toHaveBeenCalledTimes(1);
});

test("a control whose data changed is drawn again", () => {
  const { Button, drawn } = counted();
  const { rerender } = render(<Button says="Press" options={[]} onPress={vi.fn()} />);
  rerender(<Button says="Press" options={[{ value: 1, label: "one" }]} onPress={vi.fn()} />);
  rerender(<Button says="Press on" options={[{ value: 1, label: "one" }]} onPress={vi.fn()} />);
  expect(drawn()).toBe(3);
  expect(screen.getByRole("button").textContent).toBe("Press on");
});

test.each([
  ["numbers", 1, 1, true],
  ["what is no number", NaN, NaN, true],
  ["text and number", "1", 1, false],
  ["lists", [1, [2]], [1, [2]], true],
  ["lists of another length", [1], [1, 2], false],
  ["a list and an object", [], {}, false],
  ["objects with another field", { a: 1 }, { b: 1 }, false],
  ["a field that is left out and one that is nothing", { a: undefined }, {}, false],
  ["null and nothing", null, undefined, false],
  ["what is drawn", <b key="x">bold</b>, <b key="x">bold</b>, true],
  ["what is drawn otherwise", <b key="x">bold</b>, <i key="x">bold</i>, false],
  ["what is drawn with other words", <b key="x">bold</b>, <b key="x">bolder</b>, false],
  ["functions by identity", [() => 1], [() => 1], false],
])("%s are compared", (_, a, b, expected) => {
  expect(same(a, b)).toBe(expected);
});
