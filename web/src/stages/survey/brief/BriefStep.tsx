/** What the client is asked, on one page, so that nobody has to ring back. */
import type { Brief, SiteFile } from "../../../core/types";
import { GUIDE } from "../../../core/guide";
import { useSite } from "../../../keep/store";
import { ChoiceField, Field, TextField, YesNoField } from "../../../ui/Field";
import { Measure, whole } from "../../../ui/Measure";
import { UsualTargets } from "../walk/UsualTargets";
import { isNeeded } from "../walk/plainTasks";

const KINDS = [
  ["home", "Home"],
  ["shop", "Shop"],
  ["office", "Office"],
  ["yard", "Yard"],
  ["other", "Other"],
] as const;

export function BriefStep({ site }: { site: SiteFile }) {
  const edit = useSite((state) => state.edit);
  const brief: Brief = site.brief ?? {};
  const needed = (field: string): { name: string; needed: boolean } => ({
    name: field,
    needed: isNeeded("brief", field),
  });
  const set = <K extends keyof Brief>(field: K, value: Brief[K] | undefined): void =>
    edit(
      `Brief: ${field.replaceAll("_", " ")}`,
      (draft) => {
        draft.brief = { ...draft.brief, [field]: value ?? null };
      },
      `brief-${field}`,
    );
  const chooseKind = (kind: NonNullable<Brief["kind"]>): void =>
    edit("Brief: kind of site", (draft) => {
      // What is usual fills only what nobody has answered yet.
      const usual = GUIDE.usual.find((known) => known.kind === kind)?.brief;
      draft.brief = { ...usual, ...draft.brief, kind };
    });
  return (
    <section className="form-page" aria-label="Brief">
      <h1>Brief</h1>
      <TextField {...needed("client")} label="Client" value={brief.client} onChange={(v) => set("client", v)} />
      <TextField
        {...needed("contact")}
        label="Telephone or mail"
        value={brief.contact}
        onChange={(v) => set("contact", v)}
      />
      <TextField
        {...needed("address")}
        label="Address of the site"
        value={brief.address}
        onChange={(v) => set("address", v)}
      />
      <ChoiceField
        {...needed("kind")}
        label="Kind of site"
        value={brief.kind}
        options={KINDS}
        onChange={chooseKind}
        hint="Fills in what is usual where nothing is answered yet."
      />
      <UsualTargets site={site} />
      <TextField
        {...needed("worry")}
        label="Main worry, in the client's words"
        lines={2}
        value={brief.worry}
        onChange={(v) => set("worry", v)}
      />
      <TextField
        {...needed("must_see")}
        label="What must be seen"
        lines={2}
        value={brief.must_see}
        onChange={(v) => set("must_see", v)}
      />
      <Field {...needed("retention_days")} label="Days of recording">
        <div className="dials dials-big">
          <Measure
            of="brief"
            label="Days"
            value={brief.retention_days ?? null}
            empty={{ word: "not stated", onEmpty: () => set("retention_days", undefined) }}
            quantity={whole("days")}
            min={1}
            max={3660}
            onChange={(days) => set("retention_days", days)}
          />
        </div>
      </Field>
      <TextField
        {...needed("recorder_place")}
        label="Where the recorder goes"
        value={brief.recorder_place}
        onChange={(v) => set("recorder_place", v)}
        hint="Locked, dry, cool, with power and a network."
      />
      <TextField
        {...needed("colour")}
        label="Colour"
        value={brief.colour}
        onChange={(v) => set("colour", v)}
        hint="Black or white?"
      />
      <TextField {...needed("style")} label="Style" value={brief.style} onChange={(v) => set("style", v)} />
      <YesNoField
        {...needed("sound")}
        label="Sound wanted"
        value={brief.sound}
        onChange={(v) => set("sound", v)}
        hint="Recording sound is restricted by law in many places: ask local law first."
      />
      <TextField
        {...needed("viewers")}
        label="Who may see recordings"
        value={brief.viewers}
        onChange={(v) => set("viewers", v)}
      />
      <TextField {...needed("hours")} label="Hours" value={brief.hours} onChange={(v) => set("hours", v)} />
      <TextField
        {...needed("night_light")}
        label="Light at night"
        value={brief.night_light}
        onChange={(v) => set("night_light", v)}
      />
      <TextField
        {...needed("access")}
        label="Access for the fitters"
        value={brief.access}
        onChange={(v) => set("access", v)}
        hint="Ladder, lift, permit. Work at height only as local rules allow."
      />
      <TextField
        {...needed("private_places")}
        label="Keep out of view"
        lines={2}
        value={brief.private_places}
        onChange={(v) => set("private_places", v)}
        hint="Neighbours, public ground, bedrooms, bathrooms: ask local law before filming them."
      />
      <TextField {...needed("decides")} label="Who decides" value={brief.decides} onChange={(v) => set("decides", v)} />
    </section>
  );
}
