/** A box in hand: ports, power, what else hangs on it, the ways to mend it, and reading it. */
import type { Node, SiteFile } from "../../core/types";
import { changeOf, removeThing } from "../../keep/things";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { NODE_WORDS } from "../../model/network";
import { Dial } from "../../ui/Dial";
import { length, plain } from "../../ui/Measure";
import { NameInput } from "../../ui/NameInput";
import { Button, Switch } from "../../ui/controls";
import { Card, Figures } from "./Card";
import { DeviceFields } from "../../ui/DeviceFields";
import { Lost } from "./Lost";
import { ReadSwitch } from "./ReadSwitch";
import { WireWays } from "./WireWays";
import { watts } from "./figures";
import { camerasBehind } from "./behind";
import { useShown } from "./wired";

export function NodePanel({ site, node }: { site: SiteFile; node: Node }) {
  const shown = useShown();
  const units = useSettings((settings) => settings.units);
  const told = shown.nodes.get(node.id);
  const change = changeOf("node", node);
  const remove = (): void => {
    removeThing("node", node);
    useInHand.getState().take(null);
  };
  const joins = node.kind === "switch" || node.kind === "recorder" || node.kind === "router";
  const passes = node.kind === "extender" || node.kind === "repeater";
  return (
    <Card
      kind={NODE_WORDS[node.kind]}
      verdict={told?.verdict ?? null}
      name={
        <NameInput
          of={node.id}
          name={node.name}
          label="Name of the box"
          onName={(name) => change("Rename", (held) => void (held.name = name))}
        />
      }
      says={told?.says ?? []}
      settled={shown.settled}
      onRemove={remove}
    >
      {told && node.kind !== "outlet" && (
        <Figures
          settled={shown.settled}
          of={[
            ["Ports used", told.ports === null ? String(told.ports_used) : `${told.ports_used} of ${told.ports}`],
            [
              "Power drawn",
              told.budget_w === null
                ? told.drawn_w > 0
                  ? watts(told.drawn_w)
                  : null
                : `${watts(told.drawn_w)} of ${watts(told.budget_w)}`,
            ],
            ["Set aside by class", told.reserved_w > 0 ? watts(told.reserved_w) : null],
            ["On battery", told.battery_h === null ? null : `${told.battery_h.toFixed(1)} h`],
          ]}
        />
      )}
      <div className="dials">
        <Dial
          change={change}
          of={`${node.id}-height`}
          label="Height"
          value={node.height_m ?? 0}
          quantity={length(units)}
          min={-100}
          max={500}
          set={(held, v) => (held.height_m = v)}
        />
        {node.kind !== "outlet" && (
          <Dial
            change={change}
            of={`${node.id}-ports`}
            label="Ports"
            value={node.ports ?? null}
            quantity={plain("", 0, 1)}
            min={1}
            max={512}
            empty={{ word: "not said", set: (held) => (held.ports = null) }}
            set={(held, v) => (held.ports = Math.round(v))}
          />
        )}
        {(node.gives_power ?? false) && (
          <>
            <Dial
              change={change}
              of={`${node.id}-budget`}
              label="Power budget"
              value={node.budget_w ?? null}
              quantity={plain("W", 0, 10)}
              min={0}
              max={100_000}
              empty={{ word: "not said", set: (held) => (held.budget_w = null) }}
              set={(held, v) => (held.budget_w = v)}
            />
            <Dial
              change={change}
              of={`${node.id}-class`}
              label="Class of a port"
              value={node.port_class ?? null}
              quantity={plain("", 0, 1)}
              min={1}
              max={8}
              empty={{ word: "not said", set: (held) => (held.port_class = null) }}
              set={(held, v) => (held.port_class = Math.round(v))}
            />
          </>
        )}
        {joins && (
          <>
            <Dial
              change={change}
              of={`${node.id}-extended`}
              label="Extended-reach ports"
              value={node.extended_ports ?? 0}
              quantity={plain("", 0, 1)}
              min={0}
              max={512}
              set={(held, v) => (held.extended_ports = Math.round(v))}
            />
            <Dial
              change={change}
              of={`${node.id}-speed`}
              label="Speed"
              value={node.speed_mbps ?? 1000}
              quantity={plain("Mbit/s", 0, 100)}
              min={0.1}
              max={1_000_000}
              set={(held, v) => (held.speed_mbps = v)}
            />
            <Dial
              change={change}
              of={`${node.id}-battery`}
              label="Battery"
              value={node.battery_wh ?? null}
              quantity={plain("Wh", 0, 50)}
              min={0}
              max={1_000_000}
              empty={{ word: "none", set: (held) => (held.battery_wh = null) }}
              set={(held, v) => (held.battery_wh = v)}
            />
          </>
        )}
        {node.kind === "recorder" && (
          <Dial
            change={change}
            of={`${node.id}-disk`}
            label="Disks"
            value={node.disk_gb ?? null}
            quantity={plain("GB", 0, 1000)}
            min={0}
            max={100_000_000}
            empty={{ word: "not said", set: (held) => (held.disk_gb = null) }}
            set={(held, v) => (held.disk_gb = v)}
          />
        )}
        {(passes || node.power_class_in != null) && (
          <Dial
            change={change}
            of={`${node.id}-in`}
            label="Takes class"
            value={node.power_class_in ?? null}
            quantity={plain("", 0, 1)}
            min={1}
            max={8}
            empty={{ word: "not said", set: (held) => (held.power_class_in = null) }}
            set={(held, v) => (held.power_class_in = Math.round(v))}
          />
        )}
      </div>
      {joins && (
        <>
          <label className="switch-line">
            <Switch
              size="small"
              checked={node.gives_power ?? false}
              onChange={(gives) => change("Say whether it gives power", (held) => void (held.gives_power = gives))}
            />{" "}
            gives power over the cable
          </label>
          <Others node={node} />
        </>
      )}
      {told && told.verdict !== "kept" && <WireWays site={site} id={node.id} />}
      <Lost site={site} cameras={camerasBehind(shown, node.id)} what={node.name} />
      {(node.kind === "switch" || node.kind === "recorder") && <ReadSwitch site={site} node={node} />}
      {joins && <DeviceFields kind="node" thing={node} />}
    </Card>
  );
}

/** What else hangs on a box. */
function Others({ node }: { node: Node }) {
  const change = changeOf("node", node);
  const others = node.others ?? [];
  return (
    <details className="wire-device" open={others.length > 0}>
      <summary>What else hangs on it</summary>
      {others.map((other, place) => (
        <div key={place} className="wire-other">
          <NameInput
            of={`${node.id}-other-${place}`}
            name={other.name}
            label="Name of what hangs on it"
            onName={(name) =>
              change("Rename what hangs on it", (held) => {
                const at = held.others?.[place];
                if (at) at.name = name;
              })
            }
          />
          <Dial
            change={change}
            of={`${node.id}-other-${place}`}
            label="Draws"
            value={other.watts ?? 0}
            quantity={plain("W", 1, 1)}
            min={0}
            max={1000}
            set={(held, v) => {
              const at = held.others?.[place];
              if (at) at.watts = v;
            }}
          />
          <Button
            size="small"
            aria-label={`Take ${other.name} off`}
            onClick={() => change("Take something off", (held) => void held.others?.splice(place, 1))}
          >
            ×
          </Button>
        </div>
      ))}
      <Button
        size="small"
        onClick={() =>
          change("Add what else hangs on it", (held) => {
            (held.others ??= []).push({ name: "Access point", watts: 9, mbps: 0 });
          })
        }
      >
        + Access point, door station, lamp
      </Button>
    </details>
  );
}
