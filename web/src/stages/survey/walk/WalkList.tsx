/** The items of a walk in their order: chosen, moved up and down, one in hand with its form. */
import { ArrowDownOutlined, ArrowUpOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { ReactNode } from "react";

interface Item {
  id: string;
  name: string;
}

interface Props<T extends Item> {
  items: T[];
  inHand: string | null;
  what: string;
  detail(item: T): string;
  onChoose(id: string | null): void;
  /** Moves an item one place up (−1) or down (1). */
  onMove(place: number, by: number): void;
  form(item: T): ReactNode;
}

export function WalkList<T extends Item>({ items, inHand, what, detail, onChoose, onMove, form }: Props<T>) {
  return (
    <ol className="walk-list">
      {items.map((item, place) => {
        const open = item.id === inHand;
        return (
          <li key={item.id} className={open ? "walk-item walk-item-in-hand" : "walk-item"}>
            <div className="walk-face">
              <button type="button" aria-expanded={open} onClick={() => onChoose(open ? null : item.id)}>
                <span className="walk-number figure">{place + 1}</span>
                <span>
                  <strong>{item.name}</strong>
                  <br />
                  <span className="fine">{detail(item)}</span>
                </span>
              </button>
              <Button
                type="text"
                icon={<ArrowUpOutlined />}
                disabled={place === 0}
                aria-label={`${what} ${item.name} earlier`}
                onClick={() => onMove(place, -1)}
              />
              <Button
                type="text"
                icon={<ArrowDownOutlined />}
                disabled={place === items.length - 1}
                aria-label={`${what} ${item.name} later`}
                onClick={() => onMove(place, 1)}
              />
            </div>
            {open && <div className="walk-form">{form(item)}</div>}
          </li>
        );
      })}
    </ol>
  );
}

/** A list with one item moved by one place. */
export function moved<T>(items: T[], place: number, by: number): T[] {
  const list = [...items];
  const [item] = list.splice(place, 1);
  if (item !== undefined) list.splice(place + by, 0, item);
  return list;
}
