/** A model on the way to be one: its fields as they are typed. */
import type { Model } from "../core/types";
import { type Draft, type Field, asText, at, made, typedOf } from "./typed";

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
] as const satisfies Field[];

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

/** The draft of a model, of a part of one, or of none. */
export function draftOf(model: Model | Record<string, unknown> | null): Draft {
  const from = (model ?? {}) as Record<string, unknown>;
  const typed = typedOf(from, FIELDS);
  // The range stands in one field, whichever way the model holds it.
  if (typed["infrared_m"] === "") typed["infrared_m"] = asText(at(from, "infrared.range_m"));
  return { typed, from };
}

/** The model that a draft makes, or the word of the field that is missing or makes no sense. */
export function modelOf(draft: Draft): { model: Model } | { wrong: string } {
  const read = made(draft, FIELDS);
  if ("wrong" in read) return read;
  const model = read.made;
  const infrared = model["infrared"] as Record<string, unknown> | undefined;
  if (infrared && infrared["beam_deg"] !== undefined && model["infrared_m"] !== undefined) {
    infrared["range_m"] = model["infrared_m"];
    delete model["infrared_m"];
  } else delete model["infrared"];
  return { model: model as unknown as Model };
}
