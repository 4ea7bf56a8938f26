/** A dial: a figure with its unit that is typed, or turned with wheel and keys. */
import { useEffect, useRef, useState } from "react";
import type { Units } from "../core/types";
import { formatLength, lengthStep, parseLength } from "./length";

export interface Quantity {
  format(value: number): string;
  /** Reads what was typed; null for what makes no sense. */
  parse(text: string): number | null;
  step: number;
  decimals: number;
}

/** A quantity with a unit written behind the number. */
export function plain(unit: string, decimals: number, step: number): Quantity {
  const behind = new RegExp(`\\s*(${unit === "°" ? "°|deg" : unit.replace("/", "\\/")})?$`, "i");
  return {
    format: (value) => `${value.toFixed(decimals)}${unit === "°" ? "°" : ` ${unit}`}`,
    parse: (text) => {
      const bare = text.trim().replace(behind, "").replace(",", ".");
      return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(bare) ? Number(bare) : null;
    },
    step,
    decimals,
  };
}

export function length(units: Units): Quantity {
  return {
    format: (value) => formatLength(value, units),
    parse: (text) => parseLength(text, units),
    step: lengthStep(units),
    decimals: 4,
  };
}

/** How long after its last step a dial still counts as being turned, ms. */
const TURNING = 1500;

/** Whether a value lies on the way of a hand. */
const between = ({ from, now }: { from: number; now: number }, value: number): boolean =>
  value > Math.min(from, now) && value < Math.max(from, now);

interface Props {
  label: string;
  value: number;
  quantity: Quantity;
  min: number;
  max: number;
  /** A turned dial makes many changes of one gesture; a typed value is a change of its own. */
  onChange(value: number, gesture: boolean): void;
  disabled?: boolean;
  hint?: string;
  inHand?: boolean;
}

export function Measure({ label, value, quantity, min, max, onChange, disabled, hint, inHand }: Props) {
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
    const near = (v: number): boolean => Math.abs(v - value) <= quantity.step / 20;
    const held = hand.current;
    // A value that is neither the one it began with nor the one it came to was set by something else.
    const goesOn = held && Date.now() < held.until && (near(held.from) || near(held.now) || between(held, value));
    const now = limit((goesOn ? held.now : value) + steps * quantity.step);
    hand.current = { from: goesOn ? held.from : value, now, until: Date.now() + TURNING };
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

  const commit = (): void => {
    if (typed === null) return;
    const read = quantity.parse(typed);
    if (read === null) return setFault(`"${typed}" is no ${label.toLowerCase()}`);
    if (read < min - 1e-9 || read > max + 1e-9)
      return setFault(`from ${quantity.format(min)} to ${quantity.format(max)}`);
    setTyped(null);
    setHeld(null);
    setFault("");
    hand.current = null;
    const taken = limit(read);
    if (Math.abs(taken - value) > 1e-9) onChange(taken, false);
  };
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
        value={typed ?? held ?? quantity.format(value)}
        disabled={disabled}
        inputMode="text"
        spellCheck={false}
        autoComplete="off"
        aria-label={label}
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
