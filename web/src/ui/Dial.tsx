/** A dial of a thing: a value of it, typed, turned or dragged; one gesture is one step to undo. */
import type { ComponentProps } from "react";
import type { Change } from "../keep/things";
import { Measure } from "./Measure";

type MeasureProps = ComponentProps<typeof Measure>;

interface Props<Thing> extends Omit<MeasureProps, "onChange" | "empty"> {
  change: Change<Thing>;
  /** What the step is called; the label where it says enough. */
  says?: string;
  set(held: Thing, value: number): void;
  /** How it stands when nothing is said, and how it comes to that. */
  empty?: { word: string; set(held: Thing): void };
}

export function Dial<Thing>({ change, says, set, empty, ...measure }: Props<Thing>) {
  const step = says ?? measure.label;
  return (
    <Measure
      {...measure}
      {...(empty && { empty: { word: empty.word, onEmpty: () => change(step, empty.set) } })}
      onChange={(value, gesture) => change(step, (held) => set(held, value), gesture)}
    />
  );
}
