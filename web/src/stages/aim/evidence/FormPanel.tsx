/** What only some forms of camera have: the heads of a ring, the presets of a tour, the dewarped views of a fisheye, the corridor turn. */
import { GUIDE } from "../../../core/guide";
import type { Camera, Point } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { cameraOf, headOf } from "../../../model/lookups";
import { isBeside } from "../../../model/snap";
import { FisheyePanel } from "./forms/FisheyePanel";
import { RingPanel } from "./forms/RingPanel";
import { TourPanel } from "./forms/TourPanel";
import type { FormProps } from "./forms/formProps";
import { Button, Select } from "../../../ui/controls";
import "./forms/forms.css";

export function FormPanel(props: FormProps) {
  return (
    <>
      <OfItsForm {...props} />
      <Hangs {...props} />
      <Existing {...props} />
      <MountedOn {...props} />
      <HousedWith {...props} />
    </>
  );
}

function OfItsForm(props: FormProps) {
  const { camera } = props;
  switch (camera.model.form) {
    case "ptz":
      return <TourPanel {...props} />;
    case "fisheye":
      return <FisheyePanel {...props} />;
    case "multi_head":
      return <RingPanel {...props} />;
    default:
      return <Corridor {...props} />;
  }
}

type Hanging = NonNullable<Camera["mounted_as"]> | "";
const HANGS: readonly (readonly [Hanging, string])[] = [
  ["", "as its spot states"],
  ["ceiling", "under a ceiling"],
  ["wall", "on a wall"],
  ["pole", "on a pole"],
  ["pendant", "from an arm"],
];

/** How it hangs, which decides what aims its build takes, and whether it stands in a housing. */
function Hangs({ camera }: FormProps) {
  const edit = useSite((state) => state.edit);
  const housing = [camera.housing?.ip, camera.housing?.ik].filter(Boolean).join(", ");
  return (
    <div className="form-panel hangs">
      <label className="stacked">
        Hangs
        <Select<Hanging>
          size="small"
          aria-label="How the camera hangs"
          popupMatchSelectWidth={false}
          value={camera.mounted_as ?? ""}
          options={HANGS.map(([value, label]) => ({ value, label }))}
          onChange={(how) =>
            edit(`How ${camera.name} hangs`, (draft) => {
              const held = cameraOf(draft, camera.id);
              if (!held) return;
              if (how) held.mounted_as = how;
              else delete held.mounted_as;
            })
          }
        />
      </label>
      <label className="stacked">
        Housing
        <Select
          size="small"
          aria-label="Housing"
          popupMatchSelectWidth={false}
          value={camera.housing ? housing : "none"}
          options={[
            { value: "none", label: "none" },
            ...[...new Set([HOUSING, ...(camera.housing ? [housing] : [])])].map((value) => ({
              value,
              label: value || "nothing stated",
            })),
          ]}
          onChange={(value) =>
            edit(`Housing of ${camera.name}`, (draft) => {
              const held = cameraOf(draft, camera.id);
              if (!held) return;
              if (value === "none") delete held.housing;
              else if (value === HOUSING) held.housing = { ip: "IP66", ik: "IK10" };
            })
          }
        />
      </label>
    </div>
  );
}

type Was = NonNullable<Camera["existing"]> | "";
const WAS: readonly (readonly [Was, string])[] = [
  ["", "new"],
  ["stays", "there, stays"],
  ["reused", "there, used again"],
  ["goes", "there, goes"],
];

/** Whether it was there before, and what becomes of it. */
function Existing({ camera }: FormProps) {
  const edit = useSite((state) => state.edit);
  return (
    <div className="form-panel hangs">
      <label className="stacked">
        This camera is
        <Select<Was>
          size="small"
          aria-label="Whether the camera was there before"
          popupMatchSelectWidth={false}
          value={camera.existing ?? ""}
          options={WAS.map(([value, label]) => ({ value, label }))}
          onChange={(was) =>
            edit(`What becomes of ${camera.name}`, (draft) => {
              const held = cameraOf(draft, camera.id);
              if (!held) return;
              if (was) held.existing = was;
              else delete held.existing;
            })
          }
        />
      </label>
      {camera.existing === "goes" && <p className="hint">It goes: no promise counts on it, and it is not judged.</p>}
    </div>
  );
}

/** What a usual housing states. */
const HOUSING = "IP66, IK10";

/** What it sits on: that hides nothing from it, drawn how roughly it may be. */
function MountedOn({ site, camera }: FormProps) {
  const edit = useSite((state) => state.edit);
  const near = (site.obstacles ?? []).filter(
    ({ id, outline, closed }) =>
      id === camera.mounted_on || isBeside(outline, closed !== false, camera.position as Point, GUIDE.sits_on_within_m),
  );
  if (near.length === 0) return null;
  return (
    <label className="form-panel mounted-on">
      Mounted on
      <Select
        size="small"
        aria-label="What the camera is mounted on"
        popupMatchSelectWidth={false}
        value={camera.mounted_on ?? ""}
        options={[
          { value: "", label: "nothing in particular" },
          ...near.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(id: string) =>
          edit(`What ${camera.name} is mounted on`, (draft) => {
            const held = cameraOf(draft, camera.id);
            if (!held) return;
            if (id) held.mounted_on = id;
            else delete held.mounted_on;
          })
        }
      />
    </label>
  );
}

/** So near to each other two cameras may stand in one housing, m. */
const ONE_HOUSING_M = 1.5;

/** The camera in whose housing it stands, too: they fail together. */
function HousedWith({ site, camera }: FormProps) {
  const edit = useSite((state) => state.edit);
  const apart = ({ position }: Camera): number =>
    Math.hypot((position[0] ?? 0) - (camera.position[0] ?? 0), (position[1] ?? 0) - (camera.position[1] ?? 0));
  const near = site.cameras.filter(
    (other) => other.id !== camera.id && (other.id === camera.housed_with || apart(other) <= ONE_HOUSING_M),
  );
  if (near.length === 0) return null;
  return (
    <label className="form-panel mounted-on">
      In one housing with
      <Select
        size="small"
        aria-label="The camera in whose housing it stands"
        popupMatchSelectWidth={false}
        value={camera.housed_with ?? ""}
        options={[{ value: "", label: "none" }, ...near.map(({ id, name }) => ({ value: id, label: name }))]}
        onChange={(id: string) =>
          edit(`The housing of ${camera.name}`, (draft) => {
            const held = cameraOf(draft, camera.id);
            if (!held) return;
            if (id) held.housed_with = id;
            else delete held.housed_with;
          })
        }
      />
    </label>
  );
}

/** Turns the picture on its side, or back. */
function Corridor({ camera, head }: FormProps) {
  const edit = useSite((state) => state.edit);
  const upright = Math.abs(Math.sin(((head.roll_deg ?? 0) * Math.PI) / 180)) < 0.5;
  return (
    <div className="form-panel">
      <Button
        size="small"
        onClick={() =>
          edit(`${upright ? "Corridor picture" : "Upright picture"} of ${camera.name}`, (site) => {
            const h = headOf(site, camera.id, head.id);
            if (h) h.roll_deg = upright ? 90 : 0;
          })
        }
      >
        {upright ? "Turn to a corridor picture" : "Turn the picture upright"}
      </Button>
    </div>
  );
}
