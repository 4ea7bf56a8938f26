/** The drawing's card: what is drawn, how high, and the next side by a typed length and bearing. */
import { Input, type InputRef } from "antd";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { Units } from "../../../core/types";
import { useInHand } from "../../../model/inHand";
import { OBSTACLE_KINDS } from "../../../model/shapes";
import { Measure, length as lengthOf, plain } from "../../../ui/Measure";
import { parseLength } from "../../../ui/length";
import { type DrawKind, beginsAs, useDraw } from "./drawView";
import { finish, leastPoints, putPoint, putTyped, takeBack } from "./drawing";
import { Button, Select, Switch } from "../../../ui/controls";
import "./draw.css";

const KINDS: { value: DrawKind; label: string }[] = [
  ...OBSTACLE_KINDS.map((value): { value: DrawKind; label: string } => ({ value, label: value })),
  { value: "private", label: "private place" },
];

export function DrawCard({ units }: { units: Units }) {
  const { kind, closed, top, points, set, setKind } = useDraw();
  const place = useInHand((state) => state.place);
  const leave = (): void => {
    set({ points: [], hand: null });
    place(null);
  };
  return (
    <section className="obstacle-card draw-card" aria-label="Drawing">
      <Select size="small" aria-label="What is drawn" value={kind} options={KINDS} onChange={setKind} />
      <div className="pair">
        <label className="switch-line">
          <Switch
            size="small"
            checked={closed}
            onChange={(value) => set(kind === "private" ? beginsAs(kind, value) : { closed: value })}
          />{" "}
          filled
        </label>
        <Measure
          of="drawn"
          label="Top"
          value={top}
          quantity={lengthOf(units)}
          min={0.05}
          max={500}
          onChange={(value) => set({ top: value })}
        />
      </div>
      <NextSide units={units} begun={points.length > 0} />
      {kind === "private" && (
        <p className="fine">
          What no camera may show: filled, a piece of ground and all over it; else something upright, like a window.
        </p>
      )}
      <p className="fine">
        {points.length === 0
          ? "Click its first corner, or type where it is. It snaps to corners, edges and right angles."
          : "Click the next corner, or type how long the side is, Tab, its bearing, Enter. Enter on nothing ends it."}
      </p>
      <div className="obstacle-card-foot">
        <Button size="small" disabled={points.length === 0} onClick={takeBack}>
          Back
        </Button>
        <Button size="small" onClick={leave}>
          Leave it
        </Button>
        <Button size="small" type="primary" disabled={points.length < leastPoints(closed)} onClick={finish}>
          Finish
        </Button>
      </div>
    </section>
  );
}

/** Length and bearing of the next side; before the first corner its east and north. */
function NextSide({ units, begun }: { units: Units; begun: boolean }) {
  const [typed, setTyped] = useState(["", ""] as [string, string]);
  const [bad, setBad] = useState(false);
  const first = useRef<InputRef>(null);
  // What is typed goes into the length, wherever the hand was.
  useEffect(() => first.current?.focus(), [begun]);
  const put = (): void => {
    const [one, other] = typed;
    if (begun && one.trim() === "") {
      finish();
      return;
    }
    const [a, b] = begun
      ? [parseLength(one, units), other.trim() === "" ? null : plain("°", 1, 1).parse(other)]
      : [parseLength(one, units), parseLength(other, units)];
    const sense = begun ? (other.trim() === "" || b !== null) && putTyped(a, b) : a !== null && b !== null;
    if (!begun && a !== null && b !== null) putPoint({ at: [a, b], to: null });
    setBad(!sense);
    if (sense) {
      setTyped(["", ""]);
      first.current?.focus();
    }
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === "Enter") put();
    else if (event.key === "Backspace" && typed[0] === "" && typed[1] === "") takeBack();
    else return;
    event.preventDefault();
  };
  const [one, other] = begun ? ["Length", "Bearing"] : ["East", "North"];
  return (
    <div className="pair" onKeyDown={onKeyDown}>
      <label className="stacked">
        {one}
        <Input
          size="small"
          ref={first}
          aria-label={begun ? "Length of the side" : "East of the first corner"}
          status={bad ? "error" : ""}
          value={typed[0]}
          onChange={(event) => setTyped([event.target.value, typed[1]])}
        />
      </label>
      <label className="stacked">
        {other}
        <Input
          size="small"
          aria-label={begun ? "Bearing of the side" : "North of the first corner"}
          status={bad ? "error" : ""}
          placeholder={begun ? "as the hand" : ""}
          value={typed[1]}
          onChange={(event) => setTyped([typed[0], event.target.value])}
        />
      </label>
    </div>
  );
}
