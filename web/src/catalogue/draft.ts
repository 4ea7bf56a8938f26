/** A model on the way to be one: its fields as they are typed. */
import type { Model } from "../core/types";

/** The form's fields, each with the name of the model's field, its word, its unit and how it is read. */
export const FIELDS = [
  { field: "name", word: "Name", unit: "", kind: "text", needed: true },
  { field: "form", word: "Form", unit: "", kind: "form", needed: true },
  { field: "sensor.width_px", word: "Picture, across", unit: "px", kind: "number", needed: true },
  { field: "sensor.height_px", word: "Picture, down", unit: "px", kind: "number", needed: true },
  { field: "sensor.width_mm", word: "Sensor’s active width", unit: "mm", kind: "number", needed: true },
  { field: "sensor.height_mm", word: "Sensor’s active height", unit: "mm", kind: "number", needed: true },
  { field: "lens.focal_min_mm", word: "Focal length, shortest", unit: "mm", kind: "number", needed: true },
  { field: "lens.focal_max_mm", word: "Focal length, longest", unit: "mm", kind: "number", needed: true },
  { field: "lens.hfov_at_min_deg", word: "Field across, shortest", unit: "°", kind: "number", needed: false },
  { field: "lens.hfov_at_max_deg", word: "Field across, longest", unit: "°", kind: "number", needed: false },
  { field: "lens.f_number", word: "Aperture F", unit: "", kind: "number", needed: false },
  { field: "infrared_m", word: "Infrared range", unit: "m", kind: "number", needed: false },
  { field: "infrared.beam_deg", word: "Infrared beam", unit: "°", kind: "number", needed: false },
  { field: "least_lux", word: "Least light", unit: "lux", kind: "number", needed: false },
  { field: "ip", word: "Weather rating", unit: "IP", kind: "text", needed: false },
  { field: "ik", word: "Impact rating", unit: "IK", kind: "text", needed: false },
  { field: "power_class", word: "Power class", unit: "1–8", kind: "number", needed: false },
  { field: "watts", word: "Power", unit: "W", kind: "number", needed: false },
  { field: "weight_kg", word: "Weight", unit: "kg", kind: "number", needed: false },
  { field: "sound", word: "Sound", unit: "yes/no", kind: "yesno", needed: false },
  { field: "colours", word: "Colours", unit: "", kind: "list", needed: false },
  { field: "back_box", word: "Back box", unit: "", kind: "text", needed: false },
  { field: "fps_max", word: "Frame rate, most", unit: "fps", kind: "number", needed: false },
  { field: "card_gb", word: "Memory card, largest", unit: "GB", kind: "number", needed: false },
  { field: "alarm_inputs", word: "Alarm inputs", unit: "", kind: "number", needed: false },
  { field: "alarm_outputs", word: "Alarm outputs", unit: "", kind: "number", needed: false },
  { field: "note", word: "Note", unit: "", kind: "text", needed: false },
  { field: "price", word: "Price", unit: "", kind: "number", needed: false },
] as const;

export const FORMS = [
  "turret",
  "bullet",
  "dome",
  "vandal_dome",
  "box",
  "plate",
  "ptz",
  "fisheye",
  "multi_head",
] as const;

export interface Draft {
  /** What is typed, by field. */
  typed: Record<string, string>;
  /** The model that it came from: fields that the form does not show stay. */
  from: Record<string, unknown>;
}

type Tree = Record<string, unknown>;

const at = (model: Tree, field: string): unknown =>
  field.split(".").reduce<unknown>((held, name) => (held as Tree | undefined)?.[name], model);

const asText = (value: unknown): string =>
  value === undefined || value === null
    ? ""
    : Array.isArray(value)
      ? value.join(", ")
      : value === true
        ? "yes"
        : value === false
          ? "no"
          : typeof value === "object"
            ? ""
            : (value as string | number | bigint).toString();

/** The draft of a model, of a part of one, or of none. */
export function draftOf(model: Model | Record<string, unknown> | null): Draft {
  const from = (model ?? {}) as Tree;
  const typed = Object.fromEntries(FIELDS.map(({ field }) => [field, asText(at(from, field))]));
  // The range stands in one field, whichever way the model holds it.
  if (typed["infrared_m"] === "") typed["infrared_m"] = asText(at(from, "infrared.range_m"));
  return { typed, from };
}

/** The model that a draft makes, or the word of the field that is missing or makes no sense. */
export function modelOf({ typed, from }: Draft): { model: Model } | { wrong: string } {
  const model = structuredClone(from);
  for (const { field, word, kind, needed } of FIELDS) {
    const text = (typed[field] ?? "").trim();
    const [outer = "", inner] = field.split(".");
    const home = inner === undefined ? model : ((model[outer] ??= {}) as Tree);
    const name = inner ?? outer;
    if (text === "") {
      if (needed) return { wrong: `${word} is missing` };
      Reflect.deleteProperty(home, name);
      continue;
    }
    const number = Number(text.replace(",", "."));
    if (kind === "number" && !Number.isFinite(number)) return { wrong: `${word} is no number` };
    home[name] =
      kind === "number"
        ? number
        : kind === "yesno"
          ? /^(y|1|true)/i.test(text)
          : kind === "list"
            ? text
                .split(",")
                .map((part) => part.trim())
                .filter(Boolean)
            : text;
  }
  const infrared = model["infrared"] as Tree | undefined;
  if (infrared && infrared["beam_deg"] !== undefined && model["infrared_m"] !== undefined) {
    infrared["range_m"] = model["infrared_m"];
    delete model["infrared_m"];
  } else delete model["infrared"];
  return { model: model as unknown as Model };
}
