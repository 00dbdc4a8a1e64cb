/** What npm test says of its own time: each step, and the ten files that took longest. */

/** @returns {[string, number][]} milliseconds by file, of a report of Jest and of reports of Playwright. */
export function slowest(unit, ...browser) {
  const files = new Map();
  for (const { name, startTime, endTime } of unit?.testResults ?? []) files.set(name.replace(`${process.cwd()}/`, ""), endTime - startTime);
  const walk = (suite) => {
    for (const spec of suite.specs ?? [])
      for (const test of spec.tests)
        files.set(spec.file, (files.get(spec.file) ?? 0) + test.results.reduce((sum, r) => sum + r.duration, 0));
    for (const inner of suite.suites ?? []) walk(inner);
  };
  for (const report of browser) for (const suite of report?.suites ?? []) walk(suite);
  return [...files].sort((a, b) => b[1] - a[1]);
}

const seconds = (ms) => `${(ms / 1000).toFixed(0).padStart(5)} s`;

/** Prints both tables. Steps that ran side by side overlap: their sum is more than the whole. */
export function tell(steps, files) {
  console.log("\nTime of each step");
  for (const [what, ms] of steps) console.log(`${seconds(ms)}  ${what}`);
  console.log("\nThe ten slowest files");
  for (const [file, ms] of files.slice(0, 10)) console.log(`${seconds(ms)}  ${file}`);
}
