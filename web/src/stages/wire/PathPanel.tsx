/** A way that cables take: how, how high, how wide, and what runs in it. */
import type { CablePath } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { changeOf, removeThing } from "../../keep/things";
import { useInHand } from "../../model/inHand";
import { WAY_WORDS } from "../../model/network";
import { Dial } from "../../ui/Dial";
import { length, plain } from "../../ui/Measure";
import { NameInput } from "../../ui/NameInput";
import { Select, Switch } from "../../ui/controls";
import { Card, Figures } from "./Card";
import { useShown } from "./wired";

export function PathPanel({ path }: { path: CablePath }) {
  const { wired, settled } = useShown();
  const units = useSettings((settings) => settings.units);
  const told = wired?.ways.find(({ id }) => id === path.id);
  const change = changeOf("path", path);
  const remove = (): void => {
    removeThing("path", path);
    useInHand.getState().take(null);
  };
  const per = (share: number): string => `${(share * 100).toFixed(0)} %`;
  const full = told?.fill != null && told.most_fill != null && told.fill > told.most_fill;
  return (
    <Card
      kind="Cable way"
      verdict={told?.verdict ?? null}
      name={
        <NameInput
          of={path.id}
          name={path.name}
          label="Name of the cable way"
          onName={(name) => change("Rename", (held) => void (held.name = name))}
        />
      }
      says={full ? ["more cables than may run in it: a wider conduit, or a second one"] : []}
      settled={settled}
      onRemove={remove}
    >
      <Select
        size="small"
        aria-label="How cables go in it"
        value={path.in}
        options={(Object.entries(WAY_WORDS) as [CablePath["in"], string][]).map(([value, label]) => ({ value, label }))}
        onChange={(way) => change("Change how it goes", (held) => void (held.in = way))}
      />
      <Figures
        settled={settled}
        of={[
          ["Cables in it", told ? String(told.cables.length) : null],
          ["Fill", told?.fill != null && told.most_fill != null ? `${per(told.fill)} of ${per(told.most_fill)}` : null],
        ]}
      />
      <div className="dials">
        <Dial
          change={change}
          of={`${path.id}-height`}
          label="Height"
          value={path.height_m ?? null}
          quantity={length(units)}
          min={-100}
          max={500}
          empty={{ word: "not said", set: (held) => (held.height_m = null) }}
          set={(held, v) => (held.height_m = v)}
        />
        {path.in === "conduit" && (
          <Dial
            change={change}
            of={`${path.id}-inside`}
            label="Inside width"
            value={path.inside_mm ?? null}
            quantity={plain("mm", 0, 1)}
            min={1}
            max={2000}
            empty={{ word: "not said", set: (held) => (held.inside_mm = null) }}
            set={(held, v) => (held.inside_mm = v)}
          />
        )}
      </div>
      <label className="switch-line">
        <Switch
          size="small"
          checked={path.existing != null}
          onChange={(there) =>
            change("Say what is there", (held) => {
              if (there) held.existing = "stays";
              else delete held.existing;
            })
          }
        />{" "}
        is there already
      </label>
      {path.in === "trench" && <p className="wire-cautions">Ask where pipes and cables lie before you dig.</p>}
    </Card>
  );
}
