/** The phone laid on the housing reads tilt and level, where the browser lets it. Its compass is shown, and not trusted near steel. */
import { useEffect, useState } from "react";
import type { CameraHead } from "../../../core/types";
import { Button } from "../../../ui/controls";

/** A phone's own level is good to about so much, degrees; common practice, no source. */
const GOOD_TO_DEG = 1;
/** What is shown is the mean of so many readings. */
const READINGS = 20;

interface Reading {
  tilt: number;
  level: number;
  compass: number | null;
}

/** Safari asks before it tells. */
interface Asking {
  requestPermission?: () => Promise<string>;
}
interface Compass extends DeviceOrientationEvent {
  webkitCompassHeading?: number;
}

export function PhoneLevel({ head }: { head: CameraHead }) {
  const [on, setOn] = useState(false);
  const [says, setSays] = useState("");
  const [readings, setReadings] = useState<Reading[]>([]);
  useEffect(() => {
    if (!on) return;
    const hear = (event: Compass): void => {
      if (event.beta === null || event.gamma === null) return;
      const compass = event.webkitCompassHeading ?? (event.absolute && event.alpha !== null ? 360 - event.alpha : null);
      // Laid flat, its top to where the camera looks: the top sinks as the camera looks down.
      const now = { tilt: -event.beta, level: event.gamma, compass };
      setReadings((before) => [...before.slice(1 - READINGS), now]);
    };
    window.addEventListener("deviceorientation", hear);
    return () => window.removeEventListener("deviceorientation", hear);
  }, [on]);
  const start = async (): Promise<void> => {
    if (on) {
      setOn(false);
      setReadings([]);
      return;
    }
    if (typeof DeviceOrientationEvent === "undefined") {
      setSays("This browser has no level.");
      return;
    }
    const { requestPermission } = DeviceOrientationEvent as Asking;
    const given = requestPermission ? await requestPermission().catch(() => "denied") : "granted";
    setSays(given === "granted" ? "" : "The browser does not let it be read.");
    setOn(given === "granted");
  };
  const mean = (of: (reading: Reading) => number): number =>
    readings.reduce((sum, reading) => sum + of(reading), 0) / readings.length;
  const spread = (of: (reading: Reading) => number): number => {
    const middle = mean(of);
    return (
      GOOD_TO_DEG + 2 * Math.sqrt(readings.reduce((sum, one) => sum + (of(one) - middle) ** 2, 0) / readings.length)
    );
  };
  const last = readings.at(-1);
  return (
    <div className="fit-level">
      <Button size="small" aria-pressed={on} onClick={() => void start()}>
        {on ? "Level off" : "Level by the phone"}
      </Button>
      {on && <span className="fine">Lay it on the housing, its top to where the camera looks.</span>}
      {says && <span className="fine">{says}</span>}
      {on && last && (
        <span className="figure" data-testid="fit-level">
          {mean(({ tilt }) => tilt).toFixed(1)}° ± {spread(({ tilt }) => tilt).toFixed(1)} down (plan{" "}
          {head.tilt_deg.toFixed(1)}°), level {mean(({ level }) => level).toFixed(1)}° ±{" "}
          {spread(({ level }) => level).toFixed(1)} (plan {(head.roll_deg ?? 0).toFixed(1)}°)
          {last.compass === null ? "" : `, compass ${last.compass.toFixed(0)}°: not to be trusted near steel`}
        </span>
      )}
      {on && !last && <span className="fine">No reading comes: this device has no level.</span>}
    </div>
  );
}
