/** The figures of the obstacle in hand. */
import { Button, Dropdown, Select, Switch } from "antd";
import type { Obstacle, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { obstacleOf } from "../../model/lookups";
import { duplicateObstacle, setFilled, setKind, setOpen, swingOver } from "../../model/obstacles";
import { NameInput } from "../../ui/NameInput";
import { Measure, length, plain } from "../../ui/Measure";
import { offsetCopy, splitObstacle } from "../../model/shapes";
import { removeObstacle } from "./planActions";

const KINDS: Obstacle["kind"][] = ["building", "wall", "fence", "tree", "glass", "vehicle", "eave", "door", "other"];

export function ObstacleCard({ site }: { site: SiteFile }) {
  const { obstacle: id, takeObstacle } = useInHand();
  const obstacle = id ? obstacleOf(site, id) : undefined;
  if (!obstacle) return null;
  return <Card key={obstacle.id} obstacle={obstacle} close={() => takeObstacle(null)} />;
}

function Card({ obstacle, close }: { obstacle: Obstacle; close(): void }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const takeObstacle = useInHand((state) => state.takeObstacle);
  const change = (says: string, recipe: (held: Obstacle) => void, turned = false): void =>
    edit(
      `${says}: ${obstacle.name}`.slice(0, 200),
      (site) => {
        const held = obstacleOf(site, obstacle.id);
        if (held) recipe(held);
      },
      turned ? `obstacle-${says}-${obstacle.id}` : "",
    );
  const rename = (name: string): void =>
    change("Rename", (held) => {
      held.name = name;
    });
  const duplicate = (): void => {
    let copy = null as string | null;
    edit(`Duplicate ${obstacle.name}`, (site) => {
      copy = duplicateObstacle(site, obstacle.id);
    });
    if (copy) takeObstacle(copy);
  };
  const offset = (by: number): void => {
    let copy = null as string | null;
    edit(`Offset ${obstacle.name}`, (site) => {
      copy = offsetCopy(site, obstacle.id, by);
    });
    if (copy) takeObstacle(copy);
  };
  const split = (): void =>
    edit(`Split ${obstacle.name}`, (site) => {
      splitObstacle(site, obstacle.id);
    });
  const [base, top] = [obstacle.base_m ?? 0, obstacle.top_m];
  return (
    <section className="obstacle-card" aria-label={`Obstacle ${obstacle.name}`}>
      <NameInput of={obstacle.id} name={obstacle.name} label="Name of the obstacle" onName={rename} />
      <div className="pair">
        <Select
          size="small"
          aria-label="Kind of obstacle"
          value={obstacle.kind}
          options={KINDS.map((kind) => ({ value: kind, label: kind }))}
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
        <Measure
          of={obstacle.id}
          label="Top"
          value={top}
          quantity={length(units)}
          min={base + 0.01}
          max={500}
          onChange={(v, g) =>
            change(
              "Top",
              (held) => {
                held.top_m = v;
              },
              g,
            )
          }
        />
        <Measure
          of={obstacle.id}
          label="Underside"
          value={base}
          quantity={length(units)}
          min={-100}
          max={top - 0.01}
          onChange={(v, g) =>
            change(
              "Underside",
              (held) => {
                held.base_m = v;
              },
              g,
            )
          }
        />
        <Measure
          of={obstacle.id}
          label="See-through"
          value={(obstacle.see_through ?? 0) * 100}
          quantity={plain("%", 0, 10)}
          min={0}
          max={100}
          hint="0 hides all, 100 hides nothing; over 50 it does not block but is named"
          onChange={(v, g) =>
            change(
              "See-through",
              (held) => {
                held.see_through = v / 100;
              },
              g,
            )
          }
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
      <div className="obstacle-card-foot">
        <Dropdown
          trigger={["click"]}
          menu={{
            items: [
              { key: "copy", label: "Duplicate", onClick: duplicate },
              { key: "offset", label: "Copy half a metre outside", onClick: () => offset(0.5) },
              { key: "inset", label: "Copy half a metre inside", onClick: () => offset(-0.5) },
              { key: "split", label: "Split in two", onClick: split },
            ],
          }}
        >
          <Button size="small" aria-label={`More for ${obstacle.name}`}>
            More
          </Button>
        </Dropdown>
        <Button size="small" danger onClick={() => removeObstacle(obstacle)}>
          Delete
        </Button>
        <Button size="small" type="primary" onClick={close}>
          Done
        </Button>
      </div>
    </section>
  );
}

interface KindProps {
  obstacle: Obstacle;
  change(says: string, recipe: (held: Obstacle) => void, turned?: boolean): void;
}

/** The ground under it, and what only trees and doors have. */
function KindFields({ obstacle, change }: KindProps) {
  const units = useSettings((settings) => settings.units);
  const ground = (
    <Measure
      of={obstacle.id}
      label="Ground"
      value={obstacle.ground_m ?? 0}
      quantity={length(units)}
      min={-100}
      max={500}
      hint="Height of the ground at its foot; top and underside are over it"
      onChange={(v, g) =>
        change(
          "Ground",
          (held) => {
            held.ground_m = v;
          },
          g,
        )
      }
    />
  );
  if (obstacle.kind === "tree") {
    return (
      <>
        <div className="dials">
          {ground}
          <Measure
            of={obstacle.id}
            label="Trunk"
            value={obstacle.trunk_m ?? 0}
            quantity={length(units)}
            min={0}
            max={5}
            hint="How thick its trunk is under the crown; 0 for none"
            onChange={(v, g) =>
              change(
                "Trunk",
                (held) => {
                  if (v < 0.02) delete held.trunk_m;
                  else held.trunk_m = v;
                },
                g,
              )
            }
          />
          <Measure
            of={obstacle.id}
            label="Grows a year"
            value={obstacle.growth_m_per_year ?? 0}
            quantity={length(units)}
            min={0}
            max={5}
            onChange={(v, g) =>
              change(
                "Growth",
                (held) => {
                  held.growth_m_per_year = v;
                },
                g,
              )
            }
          />
        </div>
        <label className="switch-line">
          <Switch
            size="small"
            checked={obstacle.bare_see_through != null}
            onChange={(loses) =>
              change("Leaves", (held) => {
                if (loses) held.bare_see_through = BARE;
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

/** How well one sees through a bare crown; common practice, no source. */
const BARE = 0.7;
