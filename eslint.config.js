import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import globals from "globals";
import ts from "typescript-eslint";

/** The rooms of the front end, each with those that it may import from. Stages never import from each other. */
const ROOMS = {
  core: ["core"],
  model: ["core", "model"],
  keep: ["core", "model", "keep"],
  device: ["core", "keep", "device"],
  ui: ["core", "keep", "ui"],
  plan: ["core", "model", "ui", "plan"],
  // Real pictures of cameras, where they come from and how they are looked at.
  pictures: ["core", "keep", "device", "ui", "pictures"],
  sites: ["core", "keep", "ui", "sites"],
  phones: ["core", "keep", "ui", "phones"],
  catalogue: ["core", "keep", "ui", "catalogue"],
  app: ["core", "model", "keep", "device", "ui", "plan", "sites", "phones", "catalogue", "app", "stages"],
};
const STAGES = ["aim", "survey", "wire", "fit", "prove", "papers"];
/** What a stage may import from, beside itself. */
const OF_STAGES = ["core", "model", "keep", "device", "ui", "plan", "pictures"];

const forbidden = (names) => [
  "error",
  {
    patterns: names.map((name) => ({
      group: [`**/${name}/**`],
      message: "This room may not import from there (eslint.config.js says who may).",
    })),
  },
];
const rooms = [
  ...Object.entries(ROOMS).map(([room, allowed]) => ({
    files: [`web/src/${room}/**/*.{ts,tsx}`],
    rules: {
      "no-restricted-imports": forbidden([...Object.keys(ROOMS), "stages"].filter((other) => !allowed.includes(other))),
    },
  })),
  ...STAGES.map((stage) => ({
    files: [`web/src/stages/${stage}/**/*.{ts,tsx}`],
    rules: {
      "no-restricted-imports": forbidden([
        ...Object.keys(ROOMS).filter((room) => !OF_STAGES.includes(room)),
        ...STAGES.filter((other) => other !== stage),
      ]),
    },
  })),
];

export default ts.config(
  {
    ignores: [".tools", "web/dist", "web/src/core/api.d.ts", "web/src/core/made", "target", "data", "**/test-results"],
  },
  js.configs.recommended,
  {
    files: ["**/*.{ts,tsx}"],
    extends: [...ts.configs.strictTypeChecked],
    languageOptions: {
      globals: globals.browser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
      // Figures stand in texts as they are.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-confusing-void-expression": "off",
      // Props and stores are objects of functions that know no `this`.
      "@typescript-eslint/unbound-method": "off",
    },
  },
  {
    // Programs of Node.js, with pieces that run in a page.
    files: ["**/*.{js,mjs}"],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
  ...rooms,
);
