/** The figures of the obstacle in hand. */
import { GUIDE } from "../../core/guide";
import type { Obstacle } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { type Change, duplicateThing, madeOf } from "../../keep/things";
import { useInHand } from "../../model/inHand";
import { setFilled, setKind, setOpen, swingOver } from "../../model/obstacles";
import { OBSTACLE_KINDS, offsetCopy, splitObstacle } from "../../model/shapes";
import { Dial } from "../../ui/Dial";
import { length, plain } from "../../ui/Measure";
import { ThingCard } from "./ThingCard";
import { Button, Select, Switch } from "../../ui/controls";

export function ObstacleCard({ thing: obstacle }: { thing: Obstacle }) {
  const units = useSettings((settings) => settings.units);
  const take = useInHand((state) => state.take);
  const takeMade = (id: string | null): void => {
    if (id) take({ kind: "obstacle", id });
  };
  const offset = (by: number): void =>
    takeMade(madeOf("Offset", obstacle, (site) => offsetCopy(site, obstacle.id, by)));
  const [base, top] = [obstacle.base_m ?? 0, obstacle.top_m];
  return (
    <ThingCard
      kind="obstacle"
      thing={obstacle}
      more={[
        { key: "copy", label: "Duplicate", onClick: () => takeMade(duplicateThing("obstacle", obstacle)) },
        { key: "offset", label: "Copy half a metre outside", onClick: () => offset(0.5) },
        { key: "inset", label: "Copy half a metre inside", onClick: () => offset(-0.5) },
        {
          key: "split",
          label: "Split in two",
          onClick: () => madeOf("Split", obstacle, (site) => splitObstacle(site, obstacle.id)),
        },
      ]}
    >
      {(change) => (
        <>
          <div className="pair">
            <Select
              size="small"
              aria-label="Kind of obstacle"
              value={obstacle.kind}
              options={OBSTACLE_KINDS.map((kind) => ({ value: kind, label: kind }))}
              onChange={(kind) =>
                change("Change the kind", (held) => {
                  setKind(held, kind);
                })
              }
            />
            <label className="switch-line">
              <Switch
                size="small"
                checked={obstacle.closed !== false}
                onChange={(filled) => change("Change the outline", (held) => setFilled(held, filled))}
              />{" "}
              filled
            </label>
          </div>
          <div className="dials">
            <Dial
              change={change}
              of={obstacle.id}
              label="Top"
              value={top}
              quantity={length(units)}
              min={base + 0.01}
              max={500}
              set={(held, v) => (held.top_m = v)}
            />
            <Dial
              change={change}
              of={obstacle.id}
              label="Underside"
              value={base}
              quantity={length(units)}
              min={-100}
              max={top - 0.01}
              set={(held, v) => (held.base_m = v)}
            />
            <Dial
              change={change}
              of={obstacle.id}
              label="See-through"
              value={(obstacle.see_through ?? 0) * 100}
              quantity={plain("%", 0, 10)}
              min={0}
              max={100}
              hint="0 hides all, 100 hides nothing; over 50 it does not block but is named"
              set={(held, v) => (held.see_through = v / 100)}
            />
          </div>
          <label className="switch-line">
            <Switch
              size="small"
              checked={obstacle.lettering ?? false}
              onChange={(lettered) =>
                change(lettered ? "Carries writing" : "Carries no writing", (held) => {
                  if (lettered) held.lettering = true;
                  else delete held.lettering;
                })
              }
            />{" "}
            carries writing that may be read as a plate
          </label>
          <KindFields obstacle={obstacle} change={change} />
        </>
      )}
    </ThingCard>
  );
}

interface KindProps {
  obstacle: Obstacle;
  change: Change<Obstacle>;
}

/** The ground under it, and what only trees and doors have. */
function KindFields({ obstacle, change }: KindProps) {
  const units = useSettings((settings) => settings.units);
  const ground = (
    <Dial
      change={change}
      of={obstacle.id}
      label="Ground"
      value={obstacle.ground_m ?? 0}
      quantity={length(units)}
      min={-100}
      max={500}
      hint="Height of the ground at its foot; top and underside are over it"
      set={(held, v) => (held.ground_m = v)}
    />
  );
  if (obstacle.kind === "tree") {
    return (
      <>
        <div className="dials">
          {ground}
          <Dial
            change={change}
            of={obstacle.id}
            label="Trunk"
            value={obstacle.trunk_m ?? 0}
            quantity={length(units)}
            min={0}
            max={5}
            hint="How thick its trunk is under the crown; 0 for none"
            set={(held, v) => {
              if (v < 0.02) delete held.trunk_m;
              else held.trunk_m = v;
            }}
          />
          <Dial
            change={change}
            says="Growth"
            of={obstacle.id}
            label="Grows a year"
            value={obstacle.growth_m_per_year ?? 0}
            quantity={length(units)}
            min={0}
            max={5}
            set={(held, v) => (held.growth_m_per_year = v)}
          />
        </div>
        <label className="switch-line">
          <Switch
            size="small"
            checked={obstacle.bare_see_through != null}
            onChange={(loses) =>
              change("Leaves", (held) => {
                if (loses) held.bare_see_through = GUIDE.begins.bare_see_through;
                else delete held.bare_see_through;
              })
            }
          />{" "}
          loses its leaves
        </label>
      </>
    );
  }
  if (obstacle.kind !== "door") return <div className="dials">{ground}</div>;
  return (
    <>
      <div className="dials">{ground}</div>
      <div className="pair">
        <label className="switch-line">
          <Switch
            size="small"
            checked={obstacle.open ?? false}
            onChange={(open) => change(open ? "Open" : "Shut", (held) => setOpen(held, open))}
          />{" "}
          stands open
        </label>
        <Button size="small" onClick={() => change("Hinge on the other side", swingOver)}>
          Other hinge
        </Button>
      </div>
    </>
  );
}
