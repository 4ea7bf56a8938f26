/** The words on screen, each with what it means: the page in docs has them. */
import text from "../../../../docs/glossary.md?raw";

/** A row of the page's table, but not its head. */
const ROW = /^\| (?!word \|)([^|]+) \| ([^|]+) \|$/gm;

export const GLOSSARY: readonly (readonly [string, string])[] = [...text.matchAll(ROW)].map(
  ([, word = "", means = ""]) => [word, means.replaceAll(/[*`]/g, "")] as const,
);
