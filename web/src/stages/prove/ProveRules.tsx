/** The limits of proving and upkeep: a form of the site's own. */
import { Drawer } from "antd";
import { GUIDE } from "../../core/guide";
import type { ProvingRules } from "../../core/types";
import { useSite } from "../../keep/store";
import { Measure, plain } from "../../ui/Measure";

type Field = keyof ProvingRules;
const USUAL = GUIDE.proving as Required<ProvingRules>;

function rangeOf(field: Field): { least: number; most: number } {
  const known = GUIDE.limits.find((limit) => limit.field === field);
  if (!known) throw new Error(`nobody says how far ${field} goes`);
  return known;
}

/** Label, field, unit, how many of it make one of the file's, where the usual value comes from. */
const LIMITS: [string, Field, string, number, string][] = [
  ["It moved, from", "moved_deg", "°", 1, "our default"],
  ["Out of focus, under", "sharpness_share", "%", 100, "our default"],
  ["Dirty or hazed, under", "contrast_share", "%", 100, "our default"],
  ["Darker, under", "light_share", "%", 100, "our default"],
  ["Hidden, from", "region_share", "% of it", 100, "our default"],
  ["Grown, from", "grown_share", "% of it", 100, "our default"],
  ["Clock wrong, from", "clock_s", "s", 1, "common practice"],
  ["Measured is not the plan, from", "density_share", "%", 100, "our default"],
];
const MONTHS: [string, Field][] = [
  ["Covers outdoors", "cover_months"],
  ["Pictures compared with the reference", "pictures_months"],
  ["Recordings played back", "playback_months"],
  ["Firmware looked at", "firmware_months"],
  ["Passwords changed", "password_months"],
  ["Joints, lanyards, mounts", "joints_months"],
];

export function ProveRules({ close }: { close(): void }) {
  const own = useSite((state) => state.open?.site.rules?.proving) ?? {};
  const edit = useSite((state) => state.edit);
  const held: Required<ProvingRules> = { ...USUAL, ...own };
  const set = (field: Field, value: number): void =>
    edit("Change a limit of proving", (site) => {
      site.rules = { ...site.rules, proving: { ...site.rules?.proving, [field]: value } };
    });
  return (
    <Drawer open title="Limits of proving and upkeep" onClose={close} size={380}>
      <div className="rules-form">
        <h3>What counts as a difference</h3>
        <div className="dials">
          {LIMITS.map(([label, field, unit, times, source]) => (
            <Measure
              key={field}
              of="proving"
              label={label}
              value={held[field] * times}
              quantity={plain(unit, times === 1 && field === "moved_deg" ? 2 : 0, field === "moved_deg" ? 0.05 : 1)}
              min={rangeOf(field).least * times}
              max={rangeOf(field).most * times}
              hint={source}
              onChange={(value) => set(field, value / times)}
            />
          ))}
        </div>
        <h3>Due every so many months</h3>
        <p className="fine">Common practice, no source. In a yard covers come twice as often, indoors half as often.</p>
        <div className="dials">
          {MONTHS.map(([label, field]) => (
            <Measure
              key={field}
              of="proving"
              label={label}
              value={held[field]}
              quantity={plain("months", 0, 1)}
              min={rangeOf(field).least}
              max={rangeOf(field).most}
              onChange={(value) => set(field, value)}
            />
          ))}
        </div>
      </div>
    </Drawer>
  );
}
