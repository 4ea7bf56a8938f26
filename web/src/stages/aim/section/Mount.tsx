/** What the camera is mounted on, and the camera: dragged up and down to change its height. */
import type { Camera, Section } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { cameraOf } from "../../../model/lookups";
import { rounded } from "../../../model/points";
import { useSite } from "../../../keep/store";
import { formatLength } from "../../../ui/length";
import { Handle } from "../../../ui/Handle";
import type { Cut } from "./cut";

/** A solid this near behind the camera is what it is mounted on, m. */
const WALL_WITHIN = 0.6;

export function Mount({ cut, section, camera }: { cut: Cut; section: Section; camera: Camera }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  // What the hand holds is drawn as it is now; the cut around it is of the answer.
  const height = camera.height_m;
  const [u, v] = cut.at(0, height);
  const [, ground] = cut.at(0, 0);
  const wall = section.solids.find(
    (s) => s.end_m <= 0.05 && s.end_m > -WALL_WITHIN && s.top_m > height && s.base_m < height,
  );
  return (
    <g className="mount">
      {wall ? (
        <line x1={cut.at(wall.end_m, 0)[0]} x2={u} y1={v} y2={v} className="bracket" />
      ) : (
        <line x1={u} x2={u} y1={ground} y2={v} className="pole" />
      )}
      <line x1={u} x2={u} y1={v + 9} y2={ground} className="height-line" />
      <text x={u - 6} y={(v + ground) / 2 + 4} textAnchor="end" className="figure section-figure">
        {formatLength(height, units)}
      </text>
      <Handle
        label={`Height of ${camera.name}`}
        testId="height-grip"
        className="camera camera-in-hand"
        onDrag={({ at, gesture }) =>
          edit(
            `Change the height of ${camera.name}`,
            (site) => {
              const moved = cameraOf(site, camera.id);
              if (moved) moved.height_m = rounded(Math.min(Math.max(cut.site(at)[1], 0.1), 500), 2);
            },
            gesture,
          )
        }
      >
        <circle cx={u} cy={v} r={22} className="reach" />
        <circle cx={u} cy={v} r={7} className="camera-body" />
        <path
          d={`M${u} ${v - 20}v7M${u - 3.5} ${v - 16}l3.5 -4l3.5 4M${u} ${v + 20}v-7M${u - 3.5} ${v + 16}l3.5 4l3.5 -4`}
          className="grip-arrows"
        />
      </Handle>
    </g>
  );
}
