/** What is typed into the fields of a form, and what they make. */

/** A field: its name in what is made, its word, its unit and how it is read. */
export interface Field {
  field: string;
  word: string;
  unit: string;
  kind: "text" | "number" | "yesno" | "list" | "forms" | "form" | "part";
  needed: boolean;
  /** What stands in it while it is empty; *unknown* where that is what an empty one says. */
  empty?: string;
}

export interface Draft {
  /** What is typed, by field. */
  typed: Record<string, string>;
  /** What it came from: fields that the form does not show stay. */
  from: Record<string, unknown>;
}

type Tree = Record<string, unknown>;

/** What stands at a place, as in `lens.focal_min_mm`. */
export const at = (held: Tree, field: string): unknown =>
  field.split(".").reduce<unknown>((inner, name) => (inner as Tree | undefined)?.[name], held);

export const asText = (value: unknown): string =>
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

/** What the fields say of something. */
export const typedOf = (from: Tree, fields: readonly Field[]): Draft["typed"] =>
  Object.fromEntries(fields.map(({ field }) => [field, asText(at(from, field))]));

/** The parts of a list as it is typed. */
export const listed = (text: string): string[] =>
  text
    .split(",")
    .map((part) => part.trim())
    .filter(Boolean);

/** What a draft makes, or the word of the field that is missing or makes no sense. */
export function made({ typed, from }: Draft, fields: readonly Field[]): { made: Tree } | { wrong: string } {
  const tree = structuredClone(from);
  for (const { field, word, kind, needed } of fields) {
    const text = (typed[field] ?? "").trim();
    const [outer = "", inner] = field.split(".");
    const home = inner === undefined ? tree : ((tree[outer] ??= {}) as Tree);
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
          : kind === "list" || kind === "forms"
            ? listed(text)
            : text;
  }
  return { made: tree };
}
