/** Controls that are drawn anew only when what they show has changed. */
import { type ComponentType, isValidElement, memo, useLayoutEffect, useRef, useState } from "react";

type Props = Record<string, unknown>;
const isFunction = (value: unknown): value is (...with_: unknown[]) => unknown => typeof value === "function";

/** Whether two values are the same as far as data goes: lists, objects and what is drawn field by field, functions by identity. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (isValidElement(a) || isValidElement(b))
    return isValidElement(a) && isValidElement(b) && a.type === b.type && a.key === b.key && same(a.props, b.props);
  const [keys, others] = [Object.keys(a), Object.keys(b)];
  return (
    keys.length === others.length &&
    keys.every((key) => Object.hasOwn(b, key) && same((a as Props)[key], (b as Props)[key]))
  );
}

/**
 * A control of the component library under panels that are told anew ten times a second while a hand drags: it is drawn again when
 * its data changed, not because its handlers were made anew. Those that are called are always the newest. Its handlers stand at its
 * top; a function deeper in its data counts as data.
 */
export function steady<P extends object>(Control: ComponentType<P>): ComponentType<P> {
  const Inner = memo(Control as ComponentType<Props>, same);
  function Steady(given: P) {
    const props = given as Props;
    const latest = useRef(props);
    useLayoutEffect(() => {
      latest.current = props;
    });
    const [stand] = useState(() => new StandIns((name) => latest.current[name]));
    return (
      <Inner
        {...Object.fromEntries(
          Object.entries(props).map(([name, value]) => [name, isFunction(value) ? stand.for(name) : value]),
        )}
      />
    );
  }
  return Steady as ComponentType<P>;
}

/** One function for each handler, which calls whatever that is by then. */
class StandIns {
  private readonly made = new Map<string, (...with_: unknown[]) => unknown>();

  constructor(private readonly now: (name: string) => unknown) {}

  for(name: string): (...with_: unknown[]) => unknown {
    let stand = this.made.get(name);
    if (!stand) {
      stand = (...given) => {
        const act = this.now(name);
        return isFunction(act) ? act(...given) : undefined;
      };
      this.made.set(name, stand);
    }
    return stand;
  }
}
