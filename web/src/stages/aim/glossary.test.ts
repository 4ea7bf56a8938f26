/** The words under `?` are those of the page in docs. */
import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { GLOSSARY } from "./glossary";

test("every row of the glossary is read, and nothing else", () => {
  const page = readFileSync(new URL("../../../../docs/glossary.md", import.meta.url), "utf8");
  const rows = page.split("\n").filter((line) => line.startsWith("| ") && !line.startsWith("| word |"));
  expect(GLOSSARY).toHaveLength(rows.length);
  expect(GLOSSARY[0]?.[0]).toBe("promise");
  for (const [word, means] of GLOSSARY) {
    expect(word.trim()).not.toBe("");
    expect(means.length, word).toBeGreaterThan(10);
    expect(means, word).not.toMatch(/[*`|]/);
  }
});

test("a word stands once", () => {
  const words = GLOSSARY.flatMap(([word]) => word.split(", "));
  expect(new Set(words).size).toBe(words.length);
});
