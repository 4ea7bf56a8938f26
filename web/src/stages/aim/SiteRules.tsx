/** The limits that a site's verdicts are given under. */
import { Drawer, Radio } from "antd";
import { GUIDE } from "../../core/guide";
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Measure, length, plain } from "../../ui/Measure";
import { Switch } from "../../ui/controls";

type Rules = NonNullable<SiteFile["rules"]>;
type Stated = NonNullable<Rules["uncertainties"]>;
type Conditions = NonNullable<SiteFile["conditions"]>;

/** A limit where the site says none, and its range: the core's. */
const USUAL = GUIDE.rules as Required<Rules>;
const STATED = USUAL.uncertainties as Required<Stated>;
function rangeOf(field: keyof Rules | keyof Stated): { least: number; most: number } {
  const known = GUIDE.limits.find((limit) => limit.field === field);
  if (!known) throw new Error(`nobody says how far ${field} goes`);
  return known;
}

/** What is kept may not pass what is tight. */
const TURNED = [
  ["Identify", "identify_turned_kept_deg", "identify_turned_tight_deg"],
  ["Recognise", "recognise_turned_kept_deg", "recognise_turned_tight_deg"],
] as const;
const HIDDEN = [
  ["Face or plate", "hidden_small_share"],
  ["Person or vehicle", "hidden_large_share"],
] as const;
const LENGTHS = [
  ["Laser", "laser_m"],
  ["Height", "height_m"],
  ["Camera's height", "camera_height_m"],
  ["Across, laser", "laser_across_m"],
  ["Across, plan", "plan_across_m"],
  ["Across, guess", "guess_across_m"],
] as const;
const ANGLES = [
  ["Aim", "aim_deg"],
  ["Roll", "roll_deg"],
] as const;

/** Of plates on their way, of night and sun: label, field, unit, decimals, step. */
const LANE = [
  ["Pictures, kept", "looks_kept", "", 0, 1],
  ["Pictures, tight", "looks_tight", "", 0, 1],
  ["Motion blur, kept", "blur_kept_px", "px", 1, 0.1],
  ["Infrared, near/far", "zone_stops", "stops", 1, 0.1],
  ["Picture width", "lane_width_m", "m", 1, 0.5],
  ["Chance by PTZ tour", "tour_chance", "", 2, 0.05],
] as const;
const LIGHT = [
  ["Overexposed past", "washed_out_stops", "stops", 1, 0.5],
  ["Plate overexposed past", "overexposed_times", "×", 1, 0.5],
  ["Plate reflects", "retro_times", "×", 0, 5],
  ["Lamp near", "lamp_near_deg", "°", 0, 1],
  ["Back-lit within", "backlit_deg", "°", 0, 1],
] as const;

/** Which season and year the verdicts are given for. */
function SeasonFields() {
  const conditions = useSite((state) => state.open?.site.conditions) ?? {};
  const edit = useSite((state) => state.edit);
  const set = (says: string, change: Partial<Conditions>): void =>
    edit(says, (site) => {
      site.conditions = { ...site.conditions, ...change };
    });
  return (
    <>
      <Radio.Group
        value={conditions.leaves_off ?? false}
        onChange={(event) => set("Change the season", { leaves_off: event.target.value as boolean })}
      >
        <Radio value={false}>Leaves on</Radio>
        <Radio value={true}>Leaves off</Radio>
      </Radio.Group>
      <Radio.Group
        value={conditions.night ?? false}
        onChange={(event) =>
          set(event.target.value ? "Judge it by night" : "Judge it by day", { night: event.target.value as boolean })
        }
      >
        <Radio value={false}>By day</Radio>
        <Radio value={true}>By night</Radio>
      </Radio.Group>
      <div className="dials">
        <Measure
          of="rules"
          label="Tree growth, years"
          value={conditions.years ?? 0}
          quantity={plain("years", 0, 1)}
          min={0}
          max={50}
          hint="Trees grow by what each of them says"
          onChange={(v) => set("Change the years of growth", { years: v })}
        />
      </div>
    </>
  );
}

export function SiteRules({ close }: { close(): void }) {
  const own = useSite((state) => state.open?.site.rules) ?? {};
  const rules = { ...USUAL, ...own };
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const set = (says: string, change: Partial<Rules>): void =>
    edit(says, (site) => {
      site.rules = { ...site.rules, ...change };
    });
  const state = (change: Partial<Stated>): void =>
    set("Change a tolerance", { uncertainties: { ...own.uncertainties, ...change } });
  const stated = { ...STATED, ...own.uncertainties };
  const angle = plain("°", 1, 0.5);
  return (
    <Drawer open title="Limits and settings" onClose={close} size={380}>
      <div className="rules-form">
        <h3>Table of needs</h3>
        <Radio.Group
          value={rules.needs}
          onChange={(event) => set("Change the table of needs", { needs: event.target.value as "2014" })}
        >
          <Radio value="2014">IEC 62676-4:2014</Radio>
          <Radio value="2025">IEC 62676-4:2025, from memory</Radio>
        </Radio.Group>
        <h3>Method: plate cameras</h3>
        <Radio.Group
          value={rules.plate_school}
          onChange={(event) =>
            set("Change the method for plate cameras", { plate_school: event.target.value as "level" })
          }
        >
          <Radio value="level">Level: near plate height</Radio>
          <Radio value="raised">Raised: 2 to 6 m up</Radio>
        </Radio.Group>
        <h3>Method: overlap</h3>
        <Radio.Group
          value={rules.overlap ?? "none"}
          onChange={(event) => {
            const school = event.target.value as "none" | "spread" | "back_up";
            set("Change the method of overlap", { overlap: school === "none" ? null : school });
          }}
        >
          <Radio value="none">No wish</Radio>
          <Radio value="spread">Spread: each camera its own ground</Radio>
          <Radio value="back_up">Back-up: everything seen twice</Radio>
        </Radio.Group>
        <p className="fine">It changes advice and the order of ways, no verdict.</p>
        <h3>Season and light</h3>
        <SeasonFields />
        <h3>Face seen from above</h3>
        <div className="dials">
          <Measure
            of="rules"
            label="Kept up to"
            value={rules.face_kept_deg}
            quantity={angle}
            min={rangeOf("face_kept_deg").least}
            max={rules.face_tight_deg}
            onChange={(v) => set("Change a limit", { face_kept_deg: v })}
          />
          <Measure
            of="rules"
            label="Tight up to"
            value={rules.face_tight_deg}
            quantity={angle}
            min={rules.face_kept_deg}
            max={rangeOf("face_tight_deg").most}
            onChange={(v) => set("Change a limit", { face_tight_deg: v })}
          />
        </div>
        <h3>Face turned away</h3>
        <div className="dials">
          {TURNED.map(([task, keptField, tightField]) => {
            const [kept, tight] = [rules[keptField], rules[tightField]];
            const ends = [
              ["kept", keptField, kept, rangeOf(keptField).least, tight],
              ["tight", tightField, tight, kept, rangeOf(tightField).most],
            ] as const;
            return ends.map(([word, field, value, min, max]) => (
              <Measure
                of="rules"
                key={field}
                label={`${task}, ${word}`}
                value={value}
                quantity={angle}
                min={min}
                max={max}
                onChange={(v) => set("Change a limit", { [field]: v })}
              />
            ));
          })}
        </div>
        <h3>Hidden, at most</h3>
        <div className="dials">
          {HIDDEN.map(([label, field]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={rules[field] * 100}
              quantity={plain("%", 0, 1)}
              min={rangeOf(field).least * 100}
              max={rangeOf(field).most * 100}
              onChange={(v) => set("Change a limit", { [field]: v / 100 })}
            />
          ))}
        </div>
        <h3>Moving plates</h3>
        <label className="switch-line">
          <Switch
            size="small"
            checked={rules.overview_pair}
            onChange={(wanted) => set("Change the overview pair", { overview_pair: wanted })}
          />{" "}
          An overview camera beside every plate camera
        </label>
        {[LANE, LIGHT].map((fields, place) => (
          <div key={place}>
            {place === 1 && <h3>Night and sun</h3>}
            <div className="dials">
              {fields.map(([label, field, unit, decimals, step]) => (
                <Measure
                  of="rules"
                  key={field}
                  label={label}
                  value={rules[field]}
                  quantity={plain(unit, decimals, step)}
                  min={field === "looks_kept" ? rules.looks_tight : rangeOf(field).least}
                  max={field === "looks_tight" ? rules.looks_kept : rangeOf(field).most}
                  onChange={(v) => set("Change a limit", { [field]: v })}
                />
              ))}
            </div>
          </div>
        ))}
        <h3>Tolerances, ±</h3>
        <div className="dials">
          {LENGTHS.map(([label, field]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={stated[field]}
              quantity={length(units)}
              min={rangeOf(field).least}
              max={rangeOf(field).most}
              onChange={(v) => state({ [field]: v })}
            />
          ))}
          {ANGLES.map(([label, field]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={stated[field]}
              quantity={angle}
              min={rangeOf(field).least}
              max={rangeOf(field).most}
              onChange={(v) => state({ [field]: v })}
            />
          ))}
          <Measure
            of="rules"
            label="Guess"
            value={stated.guess_share * 100}
            quantity={plain("%", 0, 1)}
            min={rangeOf("guess_share").least * 100}
            max={rangeOf("guess_share").most * 100}
            onChange={(v) => state({ guess_share: v / 100 })}
          />
        </div>
        <p className="fine">A firm can set its own. Verdicts hold these at their worst.</p>
      </div>
    </Drawer>
  );
}
