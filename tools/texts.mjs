/**
 * Writes the table of all texts that somebody may read, each with the file that holds it: `node tools/texts.mjs`, to standard output.
 * From the front end's sources what stands between tags, in attributes that are read, and in sentences of the code; from the core's the
 * sentences of its answers. A language is added by this table; `web/src/texts.test.ts` looks for retired words in it.
 */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import ts from "typescript";

const ROOT = new URL("..", import.meta.url).pathname;
const tracked = (...paths) =>
  execFileSync("git", ["ls-files", "--cached", "--others", "--exclude-standard", ...paths], {
    cwd: ROOT,
    encoding: "utf8",
  })
    .trim()
    .split("\n")
    .filter((file) => file !== "")
    .sort();

/** Attributes that somebody reads, or hears. */
const READ = new Set([
  "aria-label", "title", "label", "hint", "placeholder", "alt", "okText", "cancelText", "description", "message", "verb", "says",
  "button", "name", "word", "content", "what",
]); // prettier-ignore
/** Calls whose texts nobody reads. */
const UNREAD =
  /^(querySelector|closest|matches|getContext|addEventListener|removeEventListener|getItem|setItem|import)$/;
/** What a text must have: two letters, and a space or a capital at its head. */
const isText = (text) =>
  /[A-Za-z]{2}/.test(text) && (/[A-Za-z,.;:…] [A-Za-z{(]/.test(text) || /^[A-Z][a-z]+( |$|[.?!…,])/.test(text));
/** Classes, fonts, paths of drawings, keys. */
const isCode = (text) =>
  /^[a-z-]+( [a-z-]+)*$/.test(text) && !/ (a|the|of|to|in|is|by|no|not|on|it|and|or|with|from|px|m)( |$)/.test(` ${text} `) ||
  /^[MLHVZ\d\s.{}-]+$/i.test(text) || /translate\(|rotate\(|scale\(|, (sans-serif|monospace)$|Control\+|^\[|ant-/.test(text); // prettier-ignore

function textsOf(file) {
  const source = ts.createSourceFile(file, readFileSync(ROOT + file, "utf8"), ts.ScriptTarget.Latest, true);
  const found = [];
  const add = (text) => {
    const said = text.replace(/\s+/g, " ").trim();
    if (said !== "" && !isCode(said)) found.push(said);
  };
  const nameOf = (node) => (ts.isPropertyAccessExpression(node) ? node.name.text : node.getText(source));
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isCallExpression(node) && UNREAD.test(nameOf(node.expression))) return;
    if (ts.isJsxText(node)) {
      if (/[A-Za-z]{2}/.test(node.text)) add(node.text);
    } else if (ts.isJsxAttribute(node)) {
      const { initializer } = node;
      if (initializer && ts.isStringLiteral(initializer)) {
        if (READ.has(node.name.getText(source))) add(initializer.text);
      } else if (initializer && !/^(className|data-|style|d|transform|viewBox)/.test(node.name.getText(source)))
        visit(initializer);
      return;
    } else if (ts.isTemplateExpression(node)) {
      const text = node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join("");
      if (isText(text)) add(text);
      for (const span of node.templateSpans) visit(span.expression);
      return;
    } else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      if (isText(node.text)) add(node.text);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Sentences of a Rust source: string literals with words in them, but not those of its tests or of its comments. */
function sentencesOf(file) {
  const [source = ""] = readFileSync(ROOT + file, "utf8").split("#[cfg(test)]");
  const code = source
    .split("\n")
    .filter((line) => !/^\s*\/\//.test(line))
    .join("\n");
  return [...code.matchAll(/"((?:[^"\\]|\\[^])*)"/g)]
    .map(([, text = ""]) =>
      text
        .replace(/\\\n\s*/g, "")
        .replace(/\\"/g, '"')
        .replace(/\{[^{}]*\}/g, "{…}"),
    )
    .filter((text) => /[A-Za-z]{3,}[,.;:]? [A-Za-z{(]/.test(text) && !/^</.test(text));
}

const rows = [];
for (const file of tracked("web/src/*.ts", "web/src/*.tsx"))
  if (!/\.test\.tsx?$|\/testing|api\.d\.ts|guide\.ts|vite-env|core\/made/.test(file))
    for (const text of new Set(textsOf(file))) rows.push([file.replace("web/src/", ""), text]);
for (const file of tracked("crates/core/src/*.rs"))
  for (const text of new Set(sentencesOf(file))) rows.push([file.replace("crates/", ""), text]);

// The steps at a camera are data.
const steps = "crates/core/data/steps.json";
for (const { says, caution } of JSON.parse(readFileSync(ROOT + steps, "utf8")))
  for (const text of [says, caution])
    if (text) rows.push([steps.replace("crates/", ""), text.replace(/\{[^{}]*\}/g, "{…}")]);

const cell = (text) => text.replaceAll("|", "\\|");
console.log(
  "# Texts\n\nAll that somebody may read on screen, by the file that holds it. Made by `tools/generate`; not to be changed by hand.\n",
);
console.log("| file | text |\n|---|---|");
for (const [file, text] of rows) console.log(`| ${cell(file)} | ${cell(text)} |`);
