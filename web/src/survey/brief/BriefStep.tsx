/** What the client is asked, on one page, so that nobody has to ring back. */
import { InputNumber } from "antd";
import type { Brief, SiteFile } from "../../engine/types";
import { useSite } from "../../site/store";
import { ChoiceField, Field, TextField, YesNoField } from "../Field";

const KINDS = [["home", "Home"], ["shop", "Shop"], ["office", "Office"], ["yard", "Yard"], ["other", "Other"]] as const;

/** What is usual for a kind of site; it fills only what nobody has answered yet. */
const USUAL: Record<NonNullable<Brief["kind"]>, Partial<Brief>> = {
  home: { retention_days: 14, sound: false, hours: "lived in" },
  shop: { retention_days: 30, sound: false, hours: "9 to 18, closed on Sundays" },
  office: { retention_days: 30, sound: false, hours: "8 to 18 on weekdays" },
  yard: { retention_days: 30, sound: false, hours: "7 to 18" },
  other: { sound: false },
};

export function BriefStep({ site }: { site: SiteFile }) {
  const edit = useSite((state) => state.edit);
  const brief: Brief = site.brief ?? {};
  const set = <K extends keyof Brief>(field: K, value: Brief[K] | undefined): void =>
    edit(`Brief: ${field.replaceAll("_", " ")}`, (draft) => {
      draft.brief = { ...draft.brief, [field]: value ?? null };
    }, `brief-${field}`);
  const chooseKind = (kind: NonNullable<Brief["kind"]>): void =>
    edit("Brief: kind of site", (draft) => { draft.brief = { ...USUAL[kind], ...draft.brief, kind }; });
  return (
    <section className="form-page" aria-label="Brief">
      <h1>Brief</h1>
      <TextField name="client" label="Client" needed value={brief.client} onChange={(v) => set("client", v)} />
      <TextField name="contact" label="Telephone or mail" value={brief.contact} onChange={(v) => set("contact", v)} />
      <TextField name="address" label="Address of the site" value={brief.address} onChange={(v) => set("address", v)} />
      <ChoiceField name="kind" label="Kind of site" needed value={brief.kind} options={KINDS} onChange={chooseKind} hint="Fills in what is usual where nothing is answered yet." />
      <TextField name="worry" label="Main worry, in the client's words" lines={2} value={brief.worry} onChange={(v) => set("worry", v)} />
      <TextField name="must_see" label="What must be seen" needed lines={2} value={brief.must_see} onChange={(v) => set("must_see", v)} />
      <Field name="retention_days" label="Days of recording" needed>
        <InputNumber aria-label="Days of recording" size="large" min={1} max={3660} precision={0} changeOnWheel={false} value={brief.retention_days ?? null} onChange={(days) => set("retention_days", days ?? undefined)} />
      </Field>
      <TextField name="recorder_place" label="Where the recorder goes" needed value={brief.recorder_place} onChange={(v) => set("recorder_place", v)} hint="Locked, dry, cool, with power and a network." />
      <TextField name="colour" label="Colour" needed value={brief.colour} onChange={(v) => set("colour", v)} hint="Black or white?" />
      <TextField name="style" label="Style" value={brief.style} onChange={(v) => set("style", v)} />
      <YesNoField name="sound" label="Sound wanted" needed value={brief.sound} onChange={(v) => set("sound", v)} hint="Recording sound is restricted by law in many places: ask local law first." />
      <TextField name="viewers" label="Who may see recordings" needed value={brief.viewers} onChange={(v) => set("viewers", v)} />
      <TextField name="hours" label="Hours" value={brief.hours} onChange={(v) => set("hours", v)} />
      <TextField name="night_light" label="Light at night" needed value={brief.night_light} onChange={(v) => set("night_light", v)} />
      <TextField name="access" label="Access for the fitters" needed value={brief.access} onChange={(v) => set("access", v)} hint="Ladder, lift, permit. Work at height only as local rules allow." />
      <TextField name="private_places" label="Keep out of view" needed lines={2} value={brief.private_places} onChange={(v) => set("private_places", v)} hint="Neighbours, public ground, bedrooms, bathrooms: ask local law before filming them." />
      <TextField name="decides" label="Who decides" needed value={brief.decides} onChange={(v) => set("decides", v)} />
    </section>
  );
}
