/** @type {import('jest').Config} */
const config = {
  testEnvironment: "node",
  roots: ["<rootDir>/src", "<rootDir>/demo", "<rootDir>/docs", "<rootDir>/tests/structure"],
  // Looked up in the sandbox at every use they are slow: the solver, the spectra and the ranking use them by the million.
  sandboxInjectedGlobals: ["Math", "Number", "Float64Array", "Int32Array", "Array", "Object"],
  // Components are tested in jsdom: such a file says so in its first line.
  testMatch: ["**/*.test.{ts,tsx}"],
  moduleNameMapper: {
    "^@/(.*)$": "<rootDir>/src/$1",
    // The one that the bundler takes for the App Router; the package names the one of the Pages Router.
    "^next/dynamic$": "next/dist/shared/lib/app-dynamic",
    // Published as ES modules; their bundle for browsers is plain script, which Jest can require.
    "^d3-(array|axis|color|dispatch|drag|ease|format|interpolate|path|scale|selection|shape|time|time-format|timer|transition|zoom)$":
      "<rootDir>/node_modules/d3-$1/dist/d3-$1.js",
  },
  setupFiles: ["reflect-metadata"],
  // Two files at a time on two cores, the longest first.
  maxWorkers: "100%",
  testSequencer: "<rootDir>/scripts/unit-sequencer.mjs",
  testTimeout: 120000,
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", tsx: true, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false, react: { runtime: "automatic" } },
        },
      },
    ],
  },
};
export default config;
