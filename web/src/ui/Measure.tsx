/** A dial: a figure with its unit that is typed, or turned with wheel and keys. */
import { useEffect, useRef, useState } from "react";
import type { Units } from "../core/types";
import { formatLength, lengthStep, parseLength } from "./length";
import { parseNumber } from "./number";
import { steady } from "./steady";
import { useTakenWhenLeft } from "./typed";

export interface Quantity {
  format(value: number): string;
  /** Reads what was typed; null for what makes no sense. */
  parse(text: string): number | null;
  step: number;
  decimals: number;
}

/** A quantity with a unit written behind the number; none where it is empty. */
export function plain(unit: string, decimals: number, step: number): Quantity {
  return once(`${unit}/${decimals}/${step}`, () => plainly(unit, decimals, step));
}

/** One quantity for all who ask for the same: what has not changed is not drawn again. */
const made = new Map<string, Quantity>();
function once(key: string, make: () => Quantity): Quantity {
  const quantity = made.get(key) ?? make();
  made.set(key, quantity);
  return quantity;
}

function plainly(unit: string, decimals: number, step: number): Quantity {
  const behind = new RegExp(`\\s*(${unit === "°" ? "°|deg" : unit.replace("/", "\\/")})?$`, "i");
  return {
    format: (value) => `${value.toFixed(decimals)}${unit === "°" ? "°" : unit && ` ${unit}`}`,
    parse: (text) => parseNumber(text.trim().replace(behind, "")),
    step,
    decimals,
  };
}

/** A count: a whole number, with what is counted behind it. */
export function whole(unit: string): Quantity {
  const any = plain(unit, 0, 1);
  return once(`whole ${unit}`, () => ({
    ...any,
    parse: (text) => {
      const read = any.parse(text);
      return read !== null && Number.isInteger(read) ? read : null;
    },
  }));
}

export function length(units: Units): Quantity {
  return once(units, () => ({
    format: (value) => formatLength(value, units),
    parse: (text) => parseLength(text, units),
    step: lengthStep(units),
    decimals: 4,
  }));
}

/** How long after its last step a dial still counts as being turned, ms. */
const TURNING = 1500;

/** Whether a value lies on the way of a hand. */
const between = ({ from, now }: { from: number; now: number }, value: number): boolean =>
  value > Math.min(from, now) && value < Math.max(from, now);

interface Props {
  /** The thing whose figure it is, by its id: what is typed for one thing never goes to another. */
  of: string;
  label: string;
  /** What it is called to who does not see where it stands; the label where that says enough. */
  name?: string;
  /** Null where nothing is said. */
  value: number | null;
  /** Where it may stay unsaid: the word for that, and what unsays it. An empty field and the word both do. */
  empty?: { word: string; onEmpty(): void };
  quantity: Quantity;
  min: number;
  max: number;
  /** A turned dial makes many changes of one gesture; a typed value is a change of its own. */
  onChange(value: number, gesture: boolean): void;
  disabled?: boolean;
  hint?: string;
  inHand?: boolean;
}

export function Measure({ of, empty, ...props }: Props) {
  return <Steady key={of} {...props} {...(empty && { word: empty.word, onEmpty: empty.onEmpty })} />;
}

interface DialProps extends Omit<Props, "of" | "empty"> {
  /** How it stands when nothing is said; only with what unsays it. */
  word?: string;
  onEmpty?(): void;
}

const Steady = steady(Dial);

function Dial({
  label,
  name = label,
  value,
  word,
  onEmpty,
  quantity,
  min,
  max,
  onChange,
  disabled,
  hint,
  inHand,
}: DialProps) {
  const [typed, setTyped] = useState<string | null>(null);
  // While somebody is about to type, an answer that arrives must not change the text under the hand.
  const [held, setHeld] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const limit = (v: number): number => Number(Math.min(Math.max(v, min), max).toFixed(quantity.decimals));
  // What a turning hand has made of the value, while the answer is on its way: the next step goes on from there.
  const hand = useRef<{ from: number; now: number; until: number } | null>(null);
  const turn = (steps: number): void => {
    setHeld(null);
    // Turning begins at nothing where nothing is said.
    const from = value ?? limit(0);
    const near = (v: number): boolean => Math.abs(v - from) <= quantity.step / 20;
    const held = hand.current;
    // A value that is neither the one it began with nor the one it came to was set by something else.
    const goesOn = held && Date.now() < held.until && (near(held.from) || near(held.now) || between(held, from));
    const now = limit((goesOn ? held.now : from) + steps * quantity.step);
    hand.current = { from: goesOn ? held.from : from, now, until: Date.now() + TURNING };
    onChange(now, true);
  };
  const latest = useRef(turn);
  useEffect(() => {
    latest.current = turn;
  });
  useEffect(() => {
    // React's wheel listener is passive: to keep the page from scrolling the dial has its own.
    const element = input.current;
    const wheel = (event: WheelEvent): void => {
      if (document.activeElement !== element) return;
      event.preventDefault();
      latest.current(event.deltaY < 0 ? 1 : -1);
    };
    element?.addEventListener("wheel", wheel, { passive: false });
    return () => element?.removeEventListener("wheel", wheel);
  }, []);

  const letGo = (): void => {
    setTyped(null);
    setHeld(null);
    setFault("");
    hand.current = null;
  };
  const commit = (): void => {
    if (typed === null) return;
    if (word !== undefined && ["", word.toLowerCase()].includes(typed.trim().toLowerCase())) {
      letGo();
      if (value !== null) onEmpty?.();
      return;
    }
    const read = quantity.parse(typed);
    if (read === null) return setFault(`"${typed}" is no ${label.toLowerCase()}`);
    if (read < min - 1e-9 || read > max + 1e-9)
      return setFault(`from ${quantity.format(min)} to ${quantity.format(max)}`);
    letGo();
    const taken = limit(read);
    if (value === null || Math.abs(taken - value) > 1e-9) onChange(taken, false);
  };
  useTakenWhenLeft(commit);
  const shown = value === null ? (word ?? "") : quantity.format(value);
  const keys = (event: React.KeyboardEvent): void => {
    const steps = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === "Enter") commit();
    else if (event.key === "Escape") {
      setTyped(null);
      setFault("");
    } else if (steps) {
      event.preventDefault();
      setTyped(null);
      turn(steps * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1));
    }
  };
  return (
    <label className={`dial${inHand ? " dial-in-hand" : ""}${fault ? " dial-faulty" : ""}`} title={hint}>
      <span className="dial-label">{label}</span>
      <input
        ref={input}
        value={typed ?? held ?? shown}
        disabled={disabled}
        inputMode="text"
        spellCheck={false}
        autoComplete="off"
        aria-label={name}
        data-typing={typed !== null}
        aria-invalid={fault !== ""}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={keys}
        onFocus={(event) => {
          event.target.select();
          setHeld(event.target.value);
        }}
        onBlur={() => {
          commit();
          setHeld(null);
        }}
      />
      {fault && (
        <span className="dial-fault" role="alert">
          {fault}
        </span>
      )}
    </label>
  );
}
