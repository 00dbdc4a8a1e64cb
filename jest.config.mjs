/** @type {import('jest').Config} */
const config = {
  testEnvironment: "node",
  roots: ["<rootDir>/src", "<rootDir>/demo"],
  // Looked up in the sandbox at every call it is slow: the solver and the spectra call it by the million.
  sandboxInjectedGlobals: ["Math"],
  testMatch: ["**/*.test.ts"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
  setupFiles: ["reflect-metadata"],
  // Two files at a time on two cores; the long ones wait for nobody.
  maxWorkers: "100%",
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
