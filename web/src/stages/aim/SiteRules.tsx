/** The limits that a site's verdicts are given under. */
import { Drawer, Radio, Switch } from "antd";
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Measure, length, plain } from "../../ui/Measure";

type Rules = NonNullable<SiteFile["rules"]>;
type Stated = NonNullable<Rules["uncertainties"]>;
type Conditions = NonNullable<SiteFile["conditions"]>;

/** Each with its usual value: degrees, shares, metres. What is kept may not pass what is tight. */
const TURNED = [
  ["Identify", "identify_turned_kept_deg", 30, "identify_turned_tight_deg", 60],
  ["Recognise", "recognise_turned_kept_deg", 60, "recognise_turned_tight_deg", 80],
] as const;
const HIDDEN = [
  ["Face or plate", "hidden_small_share", 0],
  ["Person or vehicle", "hidden_large_share", 1 / 3],
] as const;
const LENGTHS = [
  ["Laser", "laser_m", 0.05],
  ["Height", "height_m", 0.05],
  ["Camera's height", "camera_height_m", 0.05],
  ["Across, laser", "laser_across_m", 0.1],
  ["Across, plan", "plan_across_m", 0.25],
  ["Across, guess", "guess_across_m", 0.5],
] as const;
const ANGLES = [
  ["Aim", "aim_deg", 1],
  ["Roll", "roll_deg", 1],
] as const;

/** Of plates on their way, of night and sun: label, field, usual value, unit, decimals, step, most. */
const LANE = [
  ["Looks, kept", "looks_kept", 3, "looks", 0, 1, 1000],
  ["Looks, tight", "looks_tight", 1, "looks", 0, 1, 1000],
  ["Blur, kept", "blur_kept_px", 1, "px", 1, 0.1, 100],
  ["Infrared, ends", "zone_stops", 2, "stops", 1, 0.1, 20],
  ["Picture width", "lane_width_m", 6, "m", 1, 0.5, 100],
] as const;
const LIGHT = [
  ["Washed out past", "washed_out_stops", 4, "stops", 1, 0.5, 20],
  ["Lamp near", "lamp_near_deg", 10, "°", 0, 1, 90],
  ["Back-lit within", "backlit_deg", 20, "°", 0, 1, 90],
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
          label="Years on"
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
  const rules = useSite((state) => state.open?.site.rules) ?? {};
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const set = (says: string, change: Partial<Rules>): void =>
    edit(says, (site) => {
      site.rules = { ...site.rules, ...change };
    });
  const state = (change: Partial<Stated>): void =>
    set("Change an uncertainty", { uncertainties: { ...rules.uncertainties, ...change } });
  const stated = rules.uncertainties ?? {};
  const angle = plain("°", 1, 0.5);
  return (
    <Drawer open title="Limits of this site" onClose={close} size={380}>
      <div className="rules-form">
        <h3>Table of needs</h3>
        <Radio.Group
          value={rules.needs ?? "2014"}
          onChange={(event) => set("Change the table of needs", { needs: event.target.value as "2014" })}
        >
          <Radio value="2014">IEC 62676-4:2014</Radio>
          <Radio value="2025">IEC 62676-4:2025, from memory</Radio>
        </Radio.Group>
        <h3>School of plate cameras</h3>
        <Radio.Group
          value={rules.plate_school ?? "level"}
          onChange={(event) =>
            set("Change the school of plate cameras", { plate_school: event.target.value as "level" })
          }
        >
          <Radio value="level">Level: near plate height</Radio>
          <Radio value="raised">Raised: 2 to 6 m up</Radio>
        </Radio.Group>
        <h3>School of overlap</h3>
        <Radio.Group
          value={rules.overlap ?? "none"}
          onChange={(event) => {
            const school = event.target.value as "none" | "spread" | "back_up";
            set("Change the school of overlap", { overlap: school === "none" ? null : school });
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
            value={rules.face_kept_deg ?? 15}
            quantity={angle}
            min={0}
            max={rules.face_tight_deg ?? 30}
            onChange={(v) => set("Change a limit", { face_kept_deg: v })}
          />
          <Measure
            of="rules"
            label="Tight up to"
            value={rules.face_tight_deg ?? 30}
            quantity={angle}
            min={rules.face_kept_deg ?? 15}
            max={90}
            onChange={(v) => set("Change a limit", { face_tight_deg: v })}
          />
        </div>
        <h3>Face turned away</h3>
        <div className="dials">
          {TURNED.map(([task, keptField, usuallyKept, tightField, usuallyTight]) => {
            const [kept, tight] = [rules[keptField] ?? usuallyKept, rules[tightField] ?? usuallyTight];
            const ends = [
              ["kept", keptField, kept, 0, tight],
              ["tight", tightField, tight, kept, 90],
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
          {HIDDEN.map(([label, field, usual]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={(rules[field] ?? usual) * 100}
              quantity={plain("%", 0, 1)}
              min={0}
              max={90}
              onChange={(v) => set("Change a limit", { [field]: v / 100 })}
            />
          ))}
        </div>
        <h3>Plates on their way</h3>
        <label className="switch-line">
          <Switch
            size="small"
            checked={rules.overview_pair ?? true}
            onChange={(wanted) => set("Change the overview pair", { overview_pair: wanted })}
          />{" "}
          An overview camera beside every plate camera
        </label>
        {[LANE, LIGHT].map((fields, place) => (
          <div key={place}>
            {place === 1 && <h3>Night and sun</h3>}
            <div className="dials">
              {fields.map(([label, field, usual, unit, decimals, step, most]) => (
                <Measure
                  of="rules"
                  key={field}
                  label={label}
                  value={rules[field] ?? usual}
                  quantity={plain(unit, decimals, step)}
                  min={field === "looks_kept" ? (rules.looks_tight ?? 1) : unit === "looks" ? 1 : step}
                  max={field === "looks_tight" ? (rules.looks_kept ?? 3) : most}
                  onChange={(v) => set("Change a limit", { [field]: v })}
                />
              ))}
            </div>
          </div>
        ))}
        <h3>Stated uncertainties, ±</h3>
        <div className="dials">
          {LENGTHS.map(([label, field, usual]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={stated[field] ?? usual}
              quantity={length(units)}
              min={0}
              max={10}
              onChange={(v) => state({ [field]: v })}
            />
          ))}
          {ANGLES.map(([label, field, usual]) => (
            <Measure
              of="rules"
              key={field}
              label={label}
              value={stated[field] ?? usual}
              quantity={angle}
              min={0}
              max={45}
              onChange={(v) => state({ [field]: v })}
            />
          ))}
          <Measure
            of="rules"
            label="Guess"
            value={(stated.guess_share ?? 0.1) * 100}
            quantity={plain("%", 0, 1)}
            min={0}
            max={90}
            onChange={(v) => state({ guess_share: v / 100 })}
          />
        </div>
        <p className="fine">A firm can set its own. Verdicts hold these at their worst.</p>
      </div>
    </Drawer>
  );
}
