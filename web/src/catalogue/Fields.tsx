/** The fields of something in the catalogue, each with its word and unit. */
import { Select } from "../ui/controls";
import { PART_WORDS, formWord } from "../ui/words";
import { FORMS } from "./draft";
import { type Draft, type Field, listed } from "./typed";

interface Props {
  fields: readonly Field[];
  draft: Draft;
  onType(draft: Draft): void;
}

export function Fields({ fields, draft, onType }: Props) {
  return (
    <div className="model-fields">
      {fields.map((field) => (
        <label key={field.field}>
          <span>
            {field.word}
            {field.unit && <span className="fine"> {field.unit}</span>}
          </span>
          <OneField
            field={field}
            text={draft.typed[field.field] ?? ""}
            onType={(text) => onType({ ...draft, typed: { ...draft.typed, [field.field]: text } })}
          />
        </label>
      ))}
    </div>
  );
}

const FORM_OPTIONS = FORMS.map((form) => ({ value: form, label: formWord(form) }));
const PART_OPTIONS = Object.entries(PART_WORDS).map(([value, label]) => ({ value, label }));

function OneField({
  field: { word, kind, needed, empty = "unknown" },
  text,
  onType,
}: {
  field: Field;
  text: string;
  onType(text: string): void;
}) {
  if (kind === "form" || kind === "part")
    return (
      <select value={text} onChange={(event) => onType(event.target.value)} required>
        <option value="">—</option>
        {(kind === "form" ? FORM_OPTIONS : PART_OPTIONS).map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    );
  if (kind === "forms")
    return (
      <Select
        mode="multiple"
        aria-label={word}
        value={listed(text)}
        options={FORM_OPTIONS}
        placeholder="every form"
        onChange={(forms: string[]) => onType(forms.join(", "))}
      />
    );
  return (
    <input
      value={text}
      maxLength={200}
      inputMode={kind === "number" ? "decimal" : "text"}
      placeholder={needed ? "needed" : empty}
      onChange={(event) => onType(event.target.value)}
    />
  );
}
