import tseslint from "typescript-eslint";
import reactHooks from "eslint-plugin-react-hooks";

const SQL = "/\\b(select\\s.+\\sfrom|insert\\s+into|update\\s+\\w+\\s+set|delete\\s+from|create\\s+table)\\b/is";

// Who may import whom is no rule of the linter: tests/structure holds the tables and looks at the whole graph in a second.
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
