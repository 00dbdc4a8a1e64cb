import tseslint from "typescript-eslint";
import reactHooks from "eslint-plugin-react-hooks";

/** Forbids imports by pattern, naming the arrow that would point the wrong way. */
const forbid = (...patterns) => ({
  "no-restricted-imports": ["error", { patterns: patterns.map(([regex, message]) => ({ regex, message })) }],
});
const layer = (name) => `(^@/${name}(/|$))|((^|/)\\.\\./(.*/)?${name}/)`;
const SQL = "/\\b(select\\s.+\\sfrom|insert\\s+into|update\\s+\\w+\\s+set|delete\\s+from|create\\s+table)\\b/is";

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
    files: ["src/**/*.tsx", "src/ui/**/*.ts"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/**/*-for-tests.ts"],
    rules: forbid(
      [
        "^(?!\\.{1,2}/|@/core/|class-validator$|class-transformer$|reflect-metadata$|papaparse$|fft\\.js$).*",
        "core imports only core files, small numeric packages and class-validator",
      ],
      [layer("(server|app|ui|workers|bench)"), "arrows point down only: core imports nothing above it"],
    ),
  },
  { files: ["src/core/**/*.test.ts"], rules: forbid([layer("(server|app|ui|workers)"), "core is tested on its own"]) },
  { files: ["src/ui/**/*.{ts,tsx}"], rules: forbid([layer("(server|app)"), "ui imports core only; pages hand it data"]) },
  { files: ["src/bench/**/*.ts"], rules: forbid([layer("(server|app|ui|workers)"), "the bench imports core only: it stands where instruments stand"]) },
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
