/** The lamp in hand: its figures. */
import { Button } from "antd";
import type { Lamp, SiteFile } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { lampOf } from "../../../model/lamps";
import { NameInput } from "../../../ui/NameInput";
import { Measure, length, plain } from "../../../ui/Measure";
import { removeLamp } from "../planActions";
import "./night.css";

export function LampCard({ site }: { site: SiteFile }) {
  const { lamp, takeLamp } = useInHand();
  const held = lamp ? lampOf(site, lamp) : undefined;
  if (!held) return null;
  return <Card key={held.id} lamp={held} close={() => takeLamp(null)} />;
}

function Card({ lamp, close }: { lamp: Lamp; close(): void }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const change = (says: string, recipe: (held: Lamp) => void, turned = false): void =>
    edit(
      `${says}: ${lamp.name}`.slice(0, 200),
      (draft) => {
        const held = lampOf(draft, lamp.id);
        if (held) recipe(held);
      },
      turned ? `lamp-${says}-${lamp.id}` : "",
    );
  const rename = (name: string): void =>
    change("Rename", (held) => {
      held.name = name;
    });
  return (
    <section className="obstacle-card" aria-label={`Lamp ${lamp.name}`}>
      <NameInput of={lamp.id} name={lamp.name} label="Name of the lamp" onName={rename} />
      <div className="dials">
        <Measure
          of={lamp.id}
          label="Height"
          value={lamp.height_m}
          quantity={length(units)}
          min={0.05}
          max={500}
          onChange={(v, g) =>
            change(
              "Height",
              (held) => {
                held.height_m = v;
              },
              g,
            )
          }
        />
        <Measure
          of={lamp.id}
          label="Light"
          value={lamp.lumens}
          quantity={plain("lm", 0, 100)}
          min={0}
          max={1_000_000}
          hint="0 for a lamp that is out; it shines into the lower half space"
          onChange={(v, g) =>
            change(
              "Light",
              (held) => {
                held.lumens = v;
              },
              g,
            )
          }
        />
      </div>
      <div className="obstacle-card-foot">
        <Button size="small" danger onClick={() => removeLamp(lamp)}>
          Delete
        </Button>
        <Button size="small" type="primary" onClick={close}>
          Done
        </Button>
      </div>
    </section>
  );
}
