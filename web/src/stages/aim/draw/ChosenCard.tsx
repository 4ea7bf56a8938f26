/** What is done to several obstacles at once. */
import { useState } from "react";
import type { SiteFile, Units } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { copyAll, moveAll, removeAll, setTops } from "../../../model/shapes";
import { Measure, length } from "../../../ui/Measure";
import { useDraw } from "./drawView";
import { Button } from "../../../ui/controls";

export function ChosenCard({ site, units }: { site: SiteFile; units: Units }) {
  const { chosen, set } = useDraw();
  const edit = useSite((state) => state.edit);
  const [by, setBy] = useState([0, 0] as [number, number]);
  const held = (site.obstacles ?? []).filter((obstacle) => chosen.includes(obstacle.id));
  const ids = held.map((obstacle) => obstacle.id);
  if (held.length === 0) return null;
  const tallest = Math.max(...held.map((obstacle) => obstacle.top_m));
  const copy = (): void => {
    let made: string[] = [];
    edit(`Copy ${held.length} obstacles`, (draft) => {
      made = copyAll(draft, ids);
    });
    set({ chosen: made });
  };
  return (
    <section className="obstacle-card" aria-label="Obstacles selected together">
      <strong>{held.length === 1 ? held[0]?.name : `${held.length} obstacles`}</strong>
      <div className="dials">
        <Measure
          of={chosen.join()}
          label="Top of all"
          value={tallest}
          quantity={length(units)}
          min={0.01}
          max={500}
          onChange={(value, gesture) =>
            edit(`Top of ${held.length} obstacles`, (draft) => setTops(draft, ids, value), gesture ? "chosen-top" : "")
          }
        />
        <Measure
          of={chosen.join()}
          label="East by"
          value={by[0]}
          quantity={length(units)}
          min={-1000}
          max={1000}
          onChange={(v) => setBy([v, by[1]])}
        />
        <Measure
          of={chosen.join()}
          label="North by"
          value={by[1]}
          quantity={length(units)}
          min={-1000}
          max={1000}
          onChange={(v) => setBy([by[0], v])}
        />
      </div>
      <div className="obstacle-card-foot">
        <Button
          size="small"
          onClick={() => edit(`Move ${held.length} obstacles`, (draft) => moveAll(draft, ids, by[0], by[1]))}
        >
          Move
        </Button>
        <Button size="small" onClick={copy}>
          Copy
        </Button>
        <Button
          size="small"
          danger
          onClick={() => {
            edit(`Delete ${held.length} obstacles`, (draft) => removeAll(draft, ids));
            set({ chosen: [] });
          }}
        >
          Delete
        </Button>
        <Button size="small" type="primary" onClick={() => set({ chosen: [] })}>
          Done
        </Button>
      </div>
    </section>
  );
}
