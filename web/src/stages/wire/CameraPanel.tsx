/** The way of a camera: what is on it, what it draws and sends, and what is noted of it. */
import type { Camera, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { changeOf } from "../../keep/things";
import { CABLE_WORDS, cableOf, nameOf } from "../../model/network";
import { Dial } from "../../ui/Dial";
import { plain } from "../../ui/Measure";
import { VerdictMark } from "../../ui/VerdictMark";
import { formatLength } from "../../ui/length";
import { Button, Select, Switch } from "../../ui/controls";
import { Card, Figures } from "./Card";
import { DeviceFields } from "../../ui/DeviceFields";
import { mbps, volts, watts } from "./figures";
import { take } from "./held";
import { useWireView } from "./wireView";
import { useShown } from "./wired";

export function CameraPanel({ site, camera }: { site: SiteFile; camera: Camera }) {
  const shown = useShown();
  const units = useSettings((settings) => settings.units);
  const set = useWireView((state) => state.set);
  const run = shown.runs.get(camera.id);
  const change = changeOf("camera", camera);
  const stream = camera.stream ?? {};
  const power = camera.power ?? {};
  return (
    <Card
      kind="Camera"
      verdict={run?.verdict ?? null}
      name={<strong>{camera.name}</strong>}
      says={run?.says ?? []}
      settled={shown.settled}
    >
      {run && run.cables.length > 0 && (
        <ol className="wire-way" aria-label="Its way">
          {run.nodes.map((id, place) => (
            <li key={id}>
              <WayStep verdict={shown.nodes.get(id)?.verdict ?? null} onTake={() => take({ kind: "node", id }, site)}>
                {nameOf(site, id)}
              </WayStep>
              {run.cables[place] && <CableStep site={site} id={run.cables[place]} units={units} />}
            </li>
          ))}
          {run.cables.slice(run.nodes.length).map((id) => (
            <li key={id}>
              <CableStep site={site} id={id} units={units} />
            </li>
          ))}
        </ol>
      )}
      {run && run.cables.length === 0 && (
        <p className="hint">
          Not wired yet.{" "}
          <Button size="small" onClick={() => set({ tool: "route" })}>
            Route it for me
          </Button>
        </p>
      )}
      <Figures
        settled={shown.settled}
        of={[
          ["Length", run && run.cables.length > 0 ? formatLength(run.length_m, units, 1) : null],
          [
            "Sends",
            run && (run.most_mbps > run.mbps ? `${mbps(run.mbps)}, up to ${mbps(run.most_mbps)}` : mbps(run.mbps)),
          ],
        ]}
      />
      <div className="dials">
        <Dial
          change={change}
          of={`${camera.id}-watts`}
          label="Draws"
          value={power.watts ?? camera.model.watts ?? null}
          quantity={plain("W", 1, 0.5)}
          min={0}
          max={200}
          hint="At its most: heater and infrared light on"
          empty={{ word: "by its class", set: (held) => (held.power = { ...held.power, watts: null }) }}
          set={(held, v) => (held.power = { ...held.power, watts: v })}
        />
        <Dial
          change={change}
          of={`${camera.id}-class`}
          label="Power class"
          value={power.class ?? camera.model.power_class ?? null}
          quantity={plain("", 0, 1)}
          min={1}
          max={8}
          empty={{ word: "by its watts", set: (held) => (held.power = { ...held.power, class: null }) }}
          set={(held, v) => (held.power = { ...held.power, class: Math.round(v) })}
        />
        <Dial
          change={change}
          of={`${camera.id}-mbps`}
          label="Bit rate, measured"
          value={stream.mbps ?? null}
          quantity={plain("Mbit/s", 1, 0.5)}
          min={0}
          max={10_000}
          empty={{ word: "start value", set: (held) => (held.stream = { ...held.stream, mbps: null }) }}
          set={(held, v) => (held.stream = { ...held.stream, mbps: v })}
        />
        <Dial
          change={change}
          of={`${camera.id}-share`}
          label="Records of the day"
          value={(stream.share_recorded ?? 1) * 100}
          quantity={plain("%", 0, 10)}
          min={0}
          max={100}
          hint="100 % is all day; less where it records on motion"
          set={(held, v) => (held.stream = { ...held.stream, share_recorded: v / 100 })}
        />
        <Dial
          change={change}
          of={`${camera.id}-battery`}
          label="Battery lasts, months"
          value={power.battery_months ?? null}
          quantity={plain("", 0, 1)}
          min={0.1}
          max={600}
          empty={{ word: "no battery", set: (held) => (held.power = { ...held.power, battery_months: null }) }}
          set={(held, v) => (held.power = { ...held.power, battery_months: v })}
        />
      </div>
      {power.battery_months != null && (
        <p className="fine" data-testid="battery-visits">
          {(12 / power.battery_months).toFixed(1)} visits a year to change it. It is cut short by cold and by much that
          moves.
        </p>
      )}
      <div className="pair">
        <Select
          size="small"
          aria-label="How pictures are packed"
          value={stream.codec ?? "h265"}
          options={[
            { value: "h265", label: "H.265" },
            { value: "h264", label: "H.264" },
          ]}
          onChange={(codec) =>
            change("Change the codec", (held) => {
              held.stream = { ...held.stream, codec };
            })
          }
        />
        <label className="switch-line">
          <Switch
            size="small"
            checked={stream.busy ?? false}
            onChange={(busy) =>
              change("Say how much moves", (held) => {
                held.stream = { ...held.stream, busy };
              })
            }
          />{" "}
          much moves in it
        </label>
      </div>
      <DeviceFields kind="camera" thing={camera} />
    </Card>
  );
}

function WayStep({
  verdict,
  onTake,
  children,
}: {
  verdict: Parameters<typeof VerdictMark>[0]["verdict"];
  onTake(): void;
  children: string;
}) {
  return (
    <button type="button" className="wire-step" onClick={onTake}>
      <VerdictMark verdict={verdict} size={14} /> {children}
    </button>
  );
}

function CableStep({ site, id, units }: { site: SiteFile; id: string; units: "metres" | "feet" }) {
  const { cables } = useShown();
  const told = cables.get(id);
  const cable = cableOf(site, id);
  if (!told || !cable) return null;
  const parts = [
    CABLE_WORDS[cable.kind],
    formatLength(told.length_m, units, 0),
    told.watts !== null && watts(told.watts),
    told.volts_at_device !== null && volts(told.volts_at_device),
  ];
  return (
    <button type="button" className="wire-step wire-step-cable" onClick={() => take({ kind: "cable", id }, site)}>
      <VerdictMark verdict={told.verdict} size={14} /> {parts.filter(Boolean).join(" · ")}
    </button>
  );
}
