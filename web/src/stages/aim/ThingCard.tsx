/** The card of a thing in hand: its name, what it is made of, and what can be done with it. */
import { Dropdown } from "antd";
import type { ReactNode } from "react";
import { type Change, changeOf, removeThing } from "../../keep/things";
import { useInHand } from "../../model/inHand";
import { KINDS, type KindName, type ThingOf } from "../../model/kinds";
import { NameInput } from "../../ui/NameInput";
import { Button } from "../../ui/controls";

interface Props<Name extends KindName> {
  kind: Name;
  thing: ThingOf<Name> & { id: string; name: string };
  className?: string;
  /** What else can be done with it. */
  more?: { key: string; label: string; onClick(): void }[];
  children(change: Change<ThingOf<Name>>): ReactNode;
}

export function ThingCard<Name extends KindName>({ kind, thing, className = "", more = [], children }: Props<Name>) {
  const { word } = KINDS[kind];
  const take = useInHand((state) => state.take);
  const change = changeOf(kind, thing);
  const rename = (name: string): void => change("Rename", (held) => Object.assign(held, { name }));
  const remove = (): void => {
    removeThing(kind, thing);
    take(null);
  };
  return (
    <section
      className={`obstacle-card ${className}`}
      aria-label={`${word.charAt(0).toUpperCase()}${word.slice(1)} ${thing.name}`}
    >
      <NameInput of={thing.id} name={thing.name} label={`Name of the ${word}`} onName={rename} />
      {children(change)}
      <div className="obstacle-card-foot">
        {more.length > 0 && (
          <Dropdown trigger={["click"]} menu={{ items: more }}>
            <Button size="small" aria-label={`More for ${thing.name}`}>
              More
            </Button>
          </Dropdown>
        )}
        <Button size="small" danger onClick={remove}>
          Delete
        </Button>
        <Button size="small" type="primary" onClick={() => take(null)}>
          Done
        </Button>
      </div>
    </section>
  );
}
