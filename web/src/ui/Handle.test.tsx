// @vitest-environment happy-dom
/** A handle that goes over into another layer keeps the focus, whatever else comes with it. */
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { Handle } from "./Handle";

afterEach(cleanup);

function Layers({ held }: { held: boolean }) {
  const mark = <Handle label="Mark" testId="mark" onDrag={() => undefined} children={<circle r={5} />} />;
  return (
    <>
      <svg>{!held && mark}</svg>
      <svg>
        {held && <Handle label="Its grip" testId="grip" children={<circle r={3} />} />}
        {held && mark}
      </svg>
    </>
  );
}

test("taken with the keyboard it keeps the focus, though its grip comes first", () => {
  const { rerender } = render(<Layers held={false} />);
  screen.getByTestId("mark").focus();
  rerender(<Layers held={true} />);
  expect(document.activeElement).toBe(screen.getByTestId("mark"));
});
