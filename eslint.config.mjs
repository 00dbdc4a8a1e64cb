import { resolve } from "node:path";
import tseslint from "typescript-eslint";
import { createNodeResolver, importX } from "eslint-plugin-import-x";
import boundaries from "eslint-plugin-boundaries";
import reactHooks from "eslint-plugin-react-hooks";

/** Forbids imports by pattern, naming the arrow that would point the wrong way. */
const forbid = (...patterns) => ({
  "no-restricted-imports": ["error", { patterns: patterns.map(([regex, message]) => ({ regex, message })) }],
});
const layer = (name) => `(^@/${name}(/|$))|((^|/)\\.\\./(.*/)?${name}/)`;
const SQL = "/\\b(select\\s.+\\sfrom|insert\\s+into|update\\s+\\w+\\s+set|delete\\s+from|create\\s+table)\\b/is";

/**
 * The rooms of the core and what each may import, from the ground up: a room sees the rooms above it in this list that it names, and
 * itself. Tests and their helpers may look anywhere.
 */
const ROOMS = {
  language: [],
  texts: ["language"],
  checks: ["language", "texts"],
  quantity: ["language", "texts"],
  numeric: [],
  tubes: ["language", "texts", "quantity", "numeric"],
  circuit: ["language", "texts", "quantity", "tubes"],
  supply: ["language", "texts", "quantity", "numeric", "tubes", "circuit"],
  shop: ["language", "texts", "checks"],
  tape: ["language", "texts", "checks", "quantity", "tubes", "shop"],
  anatomy: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply"],
  solver: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply"],
  expectation: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply", "tape", "anatomy", "solver"],
  drawing: ["language", "texts", "quantity", "circuit", "anatomy"],
  blocks: ["language", "texts", "quantity", "tubes", "circuit", "anatomy", "expectation"],
  settle: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "anatomy", "solver", "expectation"],
  walk: ["language", "texts", "quantity", "numeric", "circuit", "tape", "anatomy", "expectation"],
  cold: ["language", "texts", "quantity", "numeric", "circuit", "supply", "solver", "expectation"],
  diagnosis: ["language", "texts", "circuit", "expectation"],
  "bring-up": ["language", "texts", "quantity", "numeric", "circuit", "supply", "tape", "anatomy", "solver", "expectation", "diagnosis"],
  suspects: [
    "language",
    "texts",
    "quantity",
    "numeric",
    "tubes",
    "circuit",
    "shop",
    "tape",
    "anatomy",
    "solver",
    "expectation",
    "diagnosis",
  ],
  sound: ["language", "texts", "numeric", "tape"],
  noise: ["language", "texts", "quantity", "numeric", "circuit", "tape", "solver", "diagnosis", "suspects", "sound"],
  signal: ["language", "texts", "quantity", "circuit", "solver", "noise"],
  output: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply", "tape", "anatomy", "solver", "noise", "signal"],
  capacitor: [
    ...["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply", "shop", "tape", "anatomy", "solver", "expectation"],
    ...["diagnosis", "noise", "signal"],
  ],
  intermittent: ["language", "texts", "tape"],
  inspection: ["language", "texts", "quantity", "circuit", "tape"],
  safety: ["language", "texts", "quantity", "numeric", "circuit", "supply", "shop", "tape", "anatomy", "expectation", "bring-up"],
  repair: ["language", "texts", "quantity", "circuit", "shop", "tape"],
  money: ["language", "texts", "quantity", "shop", "tape", "repair"],
  entry: ["language", "texts", "quantity", "circuit", "supply", "tape", "diagnosis", "safety"],
  instrument: ["language", "texts", "quantity", "tape"],
  job: [
    ...[
      "language",
      "texts",
      "quantity",
      "circuit",
      "supply",
      "shop",
      "tape",
      "expectation",
      "walk",
      "bring-up",
      "noise",
      "sound",
      "intermittent",
    ],
    ...["anatomy", "drawing", "capacitor", "repair", "money"],
    ...["inspection", "safety"],
  ],
  papers: [
    ...["language", "texts", "quantity", "circuit", "anatomy", "drawing", "expectation", "walk", "shop", "tape", "repair", "money", "job"],
    ...["noise", "sound", "intermittent", "capacitor", "inspection", "safety", "supply"],
  ],
  memory: ["language", "texts", "quantity", "circuit", "suspects", "tape", "repair", "money", "job"],
  ports: [
    "language",
    "texts",
    "tubes",
    "tape",
    "solver",
    "expectation",
    "cold",
    "diagnosis",
    "bring-up",
    "suspects",
    "sound",
    "noise",
    "signal",
    "drawing",
    "settle",
    "output",
    "capacitor",
  ],
  headless: ["language", "texts", "quantity", "circuit", "solver", "suspects", "diagnosis", "sound", "settle"],
};

export default tseslint.config(
  { ignores: [".next/**", "node_modules/**", "next-env.d.ts", "demo-data/**", "data/**", "test-results/**", "playwright-report/**"] },
  ...tseslint.configs.recommended,
  {
    files: ["**/*.{ts,tsx,mjs}"],
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "no-eval": "error",
      "no-implied-eval": "error",
      "no-new-func": "error",
      eqeqeq: ["error", "always", { null: "ignore" }],
    },
  },
  {
    // A promise that nobody waits for swallows what went wrong in it.
    files: ["src/{app,ui,server,bench,workers}/**/*.{ts,tsx}"],
    ignores: ["**/*.test.{ts,tsx}"],
    languageOptions: { parserOptions: { projectService: true } },
    rules: { "@typescript-eslint/no-floating-promises": "error" },
  },
  {
    files: ["src/**/*.tsx", "src/ui/**/*.ts"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/**/*-for-tests.ts"],
    rules: forbid(
      [
        "^(?!\\.{1,2}/|@/core/|class-validator$|class-transformer$|reflect-metadata$|papaparse$|fft\\.js$|ml-matrix$|date-fns$|d3-array$|big\\.js$|minisearch$).*",
        "core imports only core files, small packages and class-validator",
      ],
      [layer("(server|app|ui|workers|bench)"), "arrows point down only: core imports nothing above it"],
    ),
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/**/*.test.ts", "src/core/**/*-for-tests.ts"],
    plugins: { boundaries },
    settings: {
      "boundaries/elements": [{ type: "room", pattern: "src/core/*", capture: ["room"] }],
      "import/resolver": { node: { extensions: [".ts"] } },
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          message:
            "the room {{from.element.captured.room}} may not import from {{to.element.captured.room}}: see ROOMS in eslint.config.mjs",
          policies: Object.entries(ROOMS).map(([room, others]) => ({
            from: { element: { type: "room", captured: { room } } },
            allow: { to: { element: { type: "room", captured: { room: [room, ...others] } } } },
          })),
        },
      ],
    },
  },
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "import-x": importX },
    settings: {
      "import-x/resolver-next": [createNodeResolver({ extensions: [".ts", ".tsx"], alias: { "@": [resolve("src")] } })],
      "import-x/external-module-folders": ["node_modules"],
      "import-x/parsers": { "@typescript-eslint/parser": [".ts", ".tsx"] },
    },
    rules: { "import-x/no-cycle": ["error", { ignoreExternal: true }] },
  },
  { files: ["src/core/**/*.test.ts"], rules: forbid([layer("(server|app|ui|workers)"), "core is tested on its own"]) },
  { files: ["src/ui/**/*.{ts,tsx}"], rules: forbid([layer("(server|app)"), "ui imports core only; pages hand it data"]) },
  {
    files: ["src/bench/**/*.ts"],
    rules: forbid([layer("(server|app|ui|workers)"), "the bench imports core only: it stands where instruments stand"]),
  },
  { files: ["src/workers/**/*.ts"], rules: forbid([layer("(server|app|ui)"), "workers are thin shells over core"]) },
  { files: ["src/server/**/*.ts"], rules: forbid([layer("(app|ui|workers)"), "server imports core and bench only"]) },
  {
    files: ["src/{app,core,ui,workers,bench}/**/*.{ts,tsx}", "demo/**/*.ts", "scripts/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: `Literal[value=${SQL}]`, message: "SQL lives in src/server only" },
        { selector: `TemplateElement[value.raw=${SQL}]`, message: "SQL lives in src/server only" },
      ],
    },
  },
);
