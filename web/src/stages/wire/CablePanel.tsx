/** A cable in hand: its kind and how it goes, its figures, and the ways to mend it. */
import type { Cable, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { changeOf, removeThing } from "../../keep/things";
import { CABLE_WORDS, WAY_WORDS, nameOf } from "../../model/network";
import { Dial } from "../../ui/Dial";
import { length, plain } from "../../ui/Measure";
import { formatLength } from "../../ui/length";
import { Select, Switch } from "../../ui/controls";
import { Card, Figures } from "./Card";
import { Lost } from "./Lost";
import { WireWays } from "./WireWays";
import { mbps, volts, watts } from "./figures";
import { take } from "./held";
import { useShown } from "./wired";

type Way = NonNullable<Cable["in"]> | "nothing";

const options = <Word extends string>(words: Partial<Record<Word, string>>): { value: Word; label: string }[] =>
  (Object.entries(words) as [Word, string][]).map(([value, label]) => ({ value, label }));

export function CablePanel({ site, cable }: { site: SiteFile; cable: Cable }) {
  const shown = useShown();
  const units = useSettings((settings) => settings.units);
  const told = shown.cables.get(cable.id);
  const link = shown.links.get(cable.id);
  const change = changeOf("cable", { id: cable.id, name: cable.id });
  const remove = (): void => {
    removeThing("cable", { id: cable.id, name: cable.id });
    take(null, site);
  };
  return (
    <Card
      kind={`Cable ${cable.id}`}
      verdict={told?.verdict ?? null}
      name={
        <strong>
          {nameOf(site, cable.from)} – {nameOf(site, cable.to)}
        </strong>
      }
      says={told?.says ?? []}
      settled={shown.settled}
      onRemove={remove}
    >
      <div className="pair">
        <Select
          size="small"
          aria-label="Kind of cable"
          value={cable.kind}
          options={options(CABLE_WORDS)}
          onChange={(kind) => change("Change the kind", (held) => void (held.kind = kind))}
        />
        <Select<Way>
          size="small"
          aria-label="How it goes"
          value={cable.in ?? "nothing"}
          options={[{ value: "nothing", label: "not said" }, ...options<Way>(WAY_WORDS)]}
          onChange={(way) =>
            change("Change how it goes", (held) => {
              held.in = way === "nothing" ? null : way;
            })
          }
        />
      </div>
      {told && (
        <Figures
          settled={shown.settled}
          of={[
            [
              "Length",
              `${formatLength(told.length_m, units, 1)}${told.limit_m === null ? "" : ` of ${formatLength(told.limit_m, units, 0)}`}`,
            ],
            ["Carries", told.watts === null ? null : watts(told.watts)],
            ["Lost on the way", told.watts_lost === null ? null : watts(told.watts_lost)],
            ["At the far end", told.volts_at_device === null ? null : volts(told.volts_at_device)],
            ["Loop", told.loop_ohm === null ? null : `${told.loop_ohm.toFixed(2)} Ω`],
            ["Load", told.speed_mbps === null ? null : `${mbps(told.mbps)} of ${mbps(told.speed_mbps)}`],
          ]}
        />
      )}
      <div className="dials">
        <Dial
          change={change}
          of={`${cable.id}-length`}
          label="Length, measured"
          value={cable.length_m ?? null}
          quantity={length(units)}
          min={0}
          max={100_000}
          empty={{ word: "by the plan", set: (held) => (held.length_m = null) }}
          set={(held, v) => (held.length_m = v)}
        />
        <Dial
          change={change}
          of={`${cable.id}-height`}
          label="Goes at height"
          value={cable.route_height_m ?? null}
          quantity={length(units)}
          min={-100}
          max={500}
          hint="Where it rises to a ceiling or sinks into a trench"
          empty={{ word: "as its ends", set: (held) => (held.route_height_m = null) }}
          set={(held, v) => (held.route_height_m = v)}
        />
        {cable.kind === "cord" && (
          <>
            <Dial
              change={change}
              of={`${cable.id}-volts`}
              label="Supply"
              value={cable.volts ?? null}
              quantity={plain("V", 0, 12)}
              min={1}
              max={400}
              set={(held, v) => (held.volts = v)}
            />
            <Dial
              change={change}
              of={`${cable.id}-ohm`}
              label="Wire"
              value={cable.ohm_per_m ?? null}
              quantity={plain("Ω/m", 4, 0.001)}
              min={0}
              max={10}
              set={(held, v) => (held.ohm_per_m = v)}
            />
          </>
        )}
        {cable.kind === "wireless" && (
          <Dial
            change={change}
            of={`${cable.id}-signal`}
            label="Signal, measured"
            value={cable.signal_dbm ?? null}
            quantity={plain("dBm", 0, 1)}
            min={-120}
            max={0}
            empty={{ word: "not measured", set: (held) => (held.signal_dbm = null) }}
            set={(held, v) => (held.signal_dbm = v)}
          />
        )}
      </div>
      <div className="wire-switches">
        <label className="switch-line">
          <Switch
            size="small"
            checked={cable.extended ?? false}
            onChange={(extended) => change("Change extended reach", (held) => void (held.extended = extended))}
          />{" "}
          extended reach, 10 Mbit/s
        </label>
        <label className="switch-line">
          <Switch
            size="small"
            checked={cable.existing != null}
            onChange={(there) =>
              change("Say what is there", (held) => {
                if (there) held.existing = "stays";
                else delete held.existing;
              })
            }
          />{" "}
          is there already
        </label>
        {cable.existing != null && (
          <label className="switch-line">
            <Switch
              size="small"
              checked={cable.tested ?? false}
              onChange={(tested) => change("Say that it was tested", (held) => void (held.tested = tested))}
            />{" "}
            tested
          </label>
        )}
      </div>
      {told && told.cautions.length > 0 && (
        <ul className="wire-cautions" aria-label="Take care">
          {told.cautions.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      )}
      {told && told.verdict !== "kept" && <WireWays site={site} id={cable.id} />}
      {link && <Lost site={site} cameras={link.cameras} what="this link" />}
    </Card>
  );
}
