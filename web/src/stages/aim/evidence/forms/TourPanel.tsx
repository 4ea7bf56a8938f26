/** The presets of a head that is turned from afar, the tour over them, and what it misses. */
import { useState } from "react";
import { GUIDE } from "../../../../core/guide";
import type { Preset } from "../../../../core/types";
import { type Tour, useTour } from "../../../../core/useTours";
import { useSettings } from "../../../../keep/settings";
import { useSite } from "../../../../keep/store";
import { useInHand } from "../../../../model/inHand";
import { headOf } from "../../../../model/lookups";
import { addPreset, movePreset, removePreset } from "../../../../model/tours";
import { hasFocal, refOf, viewOf } from "../../../../model/views";
import { Told } from "../../../../ui/Told";
import { NameInput } from "../../../../ui/NameInput";
import { Measure, plain } from "../../../../ui/Measure";
import { formatLength } from "../../../../ui/length";
import { TASK_WORDS, seconds } from "../../../../ui/words";
import type { FormProps } from "./formProps";
import { LinkPanel } from "./LinkPanel";
import { Button } from "../../../../ui/controls";

export function TourPanel({ site, camera, head, view }: FormProps) {
  const edit = useSite((state) => state.edit);
  const takeHead = useInHand((state) => state.takeHead);
  const [event, setEvent] = useState(10);
  const { tour, settled } = useTour(site, camera.id, head.id, event);
  const presets = head.presets ?? [];
  const onHead = (says: string, change: (h: typeof head) => void, gesture = ""): void =>
    edit(
      `${says} ${camera.name}`,
      (draft) => {
        const h = headOf(draft, camera.id, head.id);
        if (h) change(h);
      },
      gesture,
    );
  const add = (): void => {
    const from = viewOf(head, view) ?? head;
    let made = "";
    onHead("Add a preset to", (h) => {
      made = addPreset(h, hasFocal(from) ? from : head);
    });
    takeHead({ camera: camera.id, head: head.id, view: made });
  };
  const park = (preset: Preset): void =>
    onHead(`Park at ${preset.name}:`, (h) => {
      [h.pan_deg, h.tilt_deg, h.focal_mm] = [preset.pan_deg, preset.tilt_deg, preset.focal_mm];
    });
  const inHand = presets.find((preset) => preset.id === view);
  return (
    <div className="form-panel" role="group" aria-label={`Tour of ${camera.name}`}>
      {presets.length === 0 ? (
        <p className="fine">It stays where it is aimed. With presets it tours: it shows each of them in turn.</p>
      ) : (
        <Told settled={settled}>
          <p className="tour-says" data-testid="tour-says">
            Tour of {presets.length}, {tour ? seconds(tour.cycle_s) : "…"} around
          </p>
        </Told>
      )}
      <ol className="view-list" aria-label="Presets">
        {presets.map((preset, place) => (
          <PresetRow
            key={preset.id}
            preset={preset}
            inHand={preset.id === view}
            settled={settled}
            stop={tour?.presets.find((stop) => stop.preset === preset.id)}
            onTake={() => takeHead(refOf(camera, head, preset.id))}
            onRename={(name) =>
              onHead(`Rename ${preset.name} of`, (h) => {
                const held = h.presets?.find((p) => p.id === preset.id);
                if (held) held.name = name;
              })
            }
            onUp={place > 0 ? () => onHead(`Move ${preset.name} of`, (h) => movePreset(h, preset.id, -1)) : undefined}
            onRemove={() => onHead(`Delete ${preset.name} of`, (h) => removePreset(h, preset.id))}
          />
        ))}
      </ol>
      <div className="dials">
        {inHand && (
          <Measure
            of={`${camera.id}/${head.id}/${inHand.id}`}
            label="Dwell"
            value={inHand.dwell_s}
            quantity={plain("s", 1, 1)}
            min={0.1}
            max={86400}
            onChange={(value, gesture) =>
              onHead(
                `Stay at ${inHand.name} of`,
                (h) => {
                  const held = h.presets?.find((p) => p.id === inHand.id);
                  if (held) held.dwell_s = value;
                },
                gesture ? `dwell-${camera.id}-${inHand.id}` : "",
              )
            }
          />
        )}
        <Measure
          of={`${camera.id}/${head.id}`}
          label="Pan/tilt speed"
          value={head.slew_deg_s ?? GUIDE.defaults.slew_deg_s}
          quantity={plain("°/s", 0, 10)}
          min={1}
          max={1000}
          onChange={(value, gesture) =>
            onHead(
              "Turning of",
              (h) => {
                h.slew_deg_s = value;
              },
              gesture ? `slew-${camera.id}` : "",
            )
          }
        />
        <Measure
          of={`${camera.id}/${head.id}`}
          label="Zoom time"
          value={head.zoom_s ?? GUIDE.defaults.zoom_s}
          quantity={plain("s", 1, 0.5)}
          min={0}
          max={60}
          onChange={(value, gesture) =>
            onHead(
              "Zooming of",
              (h) => {
                h.zoom_s = value;
              },
              gesture ? `zooming-${camera.id}` : "",
            )
          }
        />
        {presets.length > 0 && (
          <Measure
            of={`${camera.id}/${head.id}`}
            label="Event lasts"
            value={event}
            quantity={plain("s", 0, 1)}
            min={0}
            max={3600}
            hint="How long something happens that the tour should not miss"
            onChange={setEvent}
          />
        )}
      </div>
      <div className="form-buttons">
        <Button size="small" onClick={add}>
          Add a preset
        </Button>
        {inHand && (
          <Button size="small" onClick={() => park(inHand)}>
            Park here
          </Button>
        )}
      </div>
      {tour && (
        <Told settled={settled}>
          <ReachSays tour={tour} />
        </Told>
      )}
      <LinkPanel site={site} camera={camera} head={head} view={view} />
    </div>
  );
}

function ReachSays({ tour }: { tour: Tour }) {
  const units = useSettings((settings) => settings.units);
  const told = tour.reach.filter((reach) => ["detect", "recognise", "identify"].includes(reach.task));
  return (
    <p className="fine">
      Zoomed in it reaches{" "}
      {told.map((reach) => `${formatLength(reach.slant_m, units, 0)} to ${TASK_WORDS[reach.task]}`).join(", ")}: for one
      thing at a time.
    </p>
  );
}

function PresetRow({
  preset,
  inHand,
  settled,
  stop,
  onTake,
  onRename,
  onUp,
  onRemove,
}: {
  preset: Preset;
  inHand: boolean;
  settled: boolean;
  stop: Tour["presets"][number] | undefined;
  onTake(): void;
  onRename(name: string): void;
  onUp: (() => void) | undefined;
  onRemove(): void;
}) {
  return (
    <li className={inHand ? "view-in-hand" : ""} data-testid={`preset-${preset.id}`}>
      {inHand ? (
        <NameInput of={preset.id} name={preset.name} label="Name of the preset" onName={onRename} />
      ) : (
        <button type="button" onClick={onTake}>
          {preset.name}
        </button>
      )}
      <Button size="small" type="text" aria-label={`${preset.name} earlier`} disabled={!onUp} onClick={onUp}>
        ↑
      </Button>
      <Button size="small" type="text" aria-label={`Delete ${preset.name}`} onClick={onRemove}>
        ×
      </Button>
      <span className="told figure fine" data-settled={settled}>
        {stop
          ? `dwell ${seconds(stop.dwell_s)}, comes in ${seconds(stop.move_s)}, away ${seconds(stop.gap_s)}, catches ${Math.round(stop.chance * 100)} %`
          : `dwell ${seconds(preset.dwell_s)}`}
      </span>
    </li>
  );
}
