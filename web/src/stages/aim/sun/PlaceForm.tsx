/** Where on the earth the site is: typed, or out of a GeoJSON or world file with geographic coordinates. */
import { useRef, useState } from "react";
import type { GeoPlace } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { Measure, plain } from "../../../ui/Measure";
import { placeFromFile } from "./placeFromFile";
import { Button, Select } from "../../../ui/controls";

const DEGREES = plain("°", 5, 0.01);

/** The zones that the browser knows; the core knows the same ones. */
const zones = (): string[] => ["UTC", ...Intl.supportedValuesOf("timeZone").filter((zone) => zone.includes("/"))];

export function PlaceForm({ place, close }: { place: GeoPlace | null; close?: (() => void) | undefined }) {
  const edit = useSite((state) => state.edit);
  const file = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState("");
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const now: GeoPlace = place ?? { latitude_deg: 0, longitude_deg: 0, elevation_m: 0, time_zone: own };
  const set = (change: Partial<GeoPlace>, gesture = ""): void =>
    edit(
      "Say where the site is",
      (site) => {
        site.place = { ...now, ...site.place, ...change };
      },
      gesture,
    );
  const read = async (chosen: File): Promise<void> => {
    const found = placeFromFile(chosen.name, await chosen.text());
    if (typeof found === "string") setFault(found);
    else {
      setFault("");
      set(found);
    }
  };
  return (
    <div className="place-form">
      <div className="dials">
        <Measure
          of="place"
          label="Latitude"
          value={now.latitude_deg}
          quantity={DEGREES}
          min={-90}
          max={90}
          hint="Degrees north; south of the equator with a minus"
          onChange={(v, g) => set({ latitude_deg: v }, g ? "place-latitude" : "")}
        />
        <Measure
          of="place"
          label="Longitude"
          value={now.longitude_deg}
          quantity={DEGREES}
          min={-180}
          max={180}
          hint="Degrees east; west of Greenwich with a minus"
          onChange={(v, g) => set({ longitude_deg: v }, g ? "place-longitude" : "")}
        />
      </div>
      <Select
        size="small"
        showSearch
        aria-label="Time zone"
        value={now.time_zone}
        options={zones().map((zone) => ({ value: zone, label: zone }))}
        onChange={(zone: string) => set({ time_zone: zone })}
      />
      <div className="row">
        <Button size="small" onClick={() => file.current?.click()}>
          Out of a file …
        </Button>
        {close && (
          <Button size="small" onClick={close}>
            Done
          </Button>
        )}
        <input
          ref={file}
          type="file"
          hidden
          aria-label="A GeoJSON or world file"
          accept=".geojson,.json,.pgw,.jgw,.tfw,.wld"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen) void read(chosen);
          }}
        />
      </div>
      {fault && (
        <p className="fine" role="alert">
          {fault}
        </p>
      )}
      <p className="fine">North of the plan is north of the earth. A GeoJSON or world file in degrees says where.</p>
    </div>
  );
}
