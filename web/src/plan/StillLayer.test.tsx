// @vitest-environment happy-dom
/** What stands still on a plan is moved as it is, and drawn again at rest; a hand on it is told where it is as it was drawn. */
import { act, cleanup, render } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Handle, type Handles, HandlesProvider } from "../ui/Handle";
import { StillLayer } from "./StillLayer";
import { type PlanView, toScreen } from "./view";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const VIEW: PlanView = { centre: [10, 20], scale: 8, size: [600, 400] };

/** Draws a mark at a place of the site, and keeps the views that it was drawn at. */
function marks(): { draw(view: PlanView): React.ReactElement; views: PlanView[] } {
  const views: PlanView[] = [];
  return {
    views,
    draw: (view) => {
      views.push(view);
      const [u, v] = toScreen(view, [13, 24]);
      return (
        <Handle label="Mark" testId="mark" onDrag={() => undefined}>
          <circle cx={u} cy={v} r={5} />
        </Handle>
      );
    },
  };
}

/** Where the mark stands on the sheet: its own figures through the layer's transform. */
function onSheet(container: HTMLElement): [number, number] {
  const layer = container.querySelector<SVGElement>(".plan-still");
  const [, x = "0", y = "0", times = "1"] =
    /translate\((.+)px, (.+)px\) scale\((.+)\)/.exec(layer?.style.transform ?? "") ?? [];
  const mark = container.querySelector("circle");
  const of = (name: string): number => Number(mark?.getAttribute(name));
  return [Number(x) + of("cx") * Number(times), Number(y) + of("cy") * Number(times)];
}

test("a plan that is moved draws nothing again, and each mark lies where the plan has it", () => {
  const { draw, views } = marks();
  const { rerender, container } = render(<StillLayer view={VIEW} draw={draw} />);
  for (const centre of [
    [11, 20],
    [40, -30],
    [-100, 7.5],
  ] as [number, number][]) {
    const view = { ...VIEW, centre };
    rerender(<StillLayer view={view} draw={draw} />);
    const [u, v] = toScreen(view, [13, 24]);
    expect(onSheet(container)).toEqual([expect.closeTo(u, 6), expect.closeTo(v, 6)]);
  }
  expect(views).toHaveLength(1);
});

test("a zoom draws its marks at its scale once it rests, and they lie right all the while", () => {
  const { draw, views } = marks();
  const { rerender, container } = render(<StillLayer view={VIEW} draw={draw} />);
  let view = VIEW;
  for (const scale of [9, 10, 11]) {
    view = { ...view, scale };
    rerender(<StillLayer view={view} draw={draw} />);
    const [u, v] = toScreen(view, [13, 24]);
    expect(onSheet(container)).toEqual([expect.closeTo(u, 6), expect.closeTo(v, 6)]);
  }
  expect(views).toHaveLength(1);
  act(() => {
    vi.advanceTimersByTime(1000);
  });
  expect(views.at(-1)).toMatchObject({ scale: 11 });
  const [u, v] = toScreen(view, [13, 24]);
  expect(onSheet(container)).toEqual([expect.closeTo(u, 6), expect.closeTo(v, 6)]);
});

test("a zoom past twice the scale is drawn at once, and so is a plan that was moved very far", () => {
  const { draw, views } = marks();
  const { rerender } = render(<StillLayer view={VIEW} draw={draw} />);
  rerender(<StillLayer view={{ ...VIEW, scale: 20 }} draw={draw} />);
  expect(views.at(-1)).toMatchObject({ scale: 20 });
  rerender(<StillLayer view={{ ...VIEW, scale: 20, centre: [5000, 20] }} draw={draw} />);
  expect(views.at(-1)).toMatchObject({ centre: [5000, 20] });
});

test("another way to draw is drawn at the view that the layer has, with the same view for marks that have not changed", () => {
  const [first, second] = [marks(), marks()];
  const { rerender } = render(<StillLayer view={VIEW} draw={first.draw} />);
  rerender(<StillLayer view={{ ...VIEW, centre: [12, 20] }} draw={second.draw} />);
  expect(second.views).toHaveLength(1);
  expect(second.views[0]).toBe(first.views[0]);
});

test("a handle in it knows where its layer lies", () => {
  const handles: Handles = new Map();
  const { draw } = marks();
  const { rerender } = render(
    <HandlesProvider value={handles}>
      <StillLayer view={VIEW} draw={draw} />
    </HandlesProvider>,
  );
  const view = { ...VIEW, centre: [14, 22] as [number, number], scale: 10 };
  rerender(
    <HandlesProvider value={handles}>
      <StillLayer view={view} draw={draw} />
    </HandlesProvider>,
  );
  const lies = handles.get("mark")?.lies?.current;
  // The layer's own middle, the site's [10, 20], on the sheet; and how much larger it looks than it was drawn.
  expect(lies?.from).toEqual(toScreen(view, [10, 20]));
  expect(lies?.times).toBeCloseTo(10 / 8, 9);
});
