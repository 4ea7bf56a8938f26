/** The lamp in hand: its figures. */
import type { Lamp } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { Dial } from "../../../ui/Dial";
import { length, plain } from "../../../ui/Measure";
import { ThingCard } from "../ThingCard";
import "./night.css";

export function LampCard({ thing: lamp }: { thing: Lamp }) {
  const units = useSettings((settings) => settings.units);
  return (
    <ThingCard kind="lamp" thing={lamp}>
      {(change) => (
        <div className="dials">
          <Dial
            change={change}
            of={lamp.id}
            label="Height"
            value={lamp.height_m}
            quantity={length(units)}
            min={0.05}
            max={500}
            set={(held, v) => (held.height_m = v)}
          />
          <Dial
            change={change}
            of={lamp.id}
            label="Light"
            value={lamp.lumens}
            quantity={plain("lm", 0, 100)}
            min={0}
            max={1_000_000}
            hint="0 for a lamp that is out; it shines into the lower half space"
            set={(held, v) => (held.lumens = v)}
          />
        </div>
      )}
    </ThingCard>
  );
}
