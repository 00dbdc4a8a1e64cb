/** Every file that the documents name is there. */

import { existsSync, readdirSync, readFileSync } from "node:fs";

const DOCUMENTS = ["README.md", "CONTRIBUTING.md", ...readdirSync("docs").flatMap((f) => (f.endsWith(".md") ? [`docs/${f}`] : []))];
/** A document may leave out src/ or src/core/. */
const ROOTS = ["", "src/", "src/core/"];
const FOLDERS = new Set(
  ["src", "demo", "scripts", "tests", "docs"].concat(
    ["src", "src/core"].flatMap((root) => readdirSync(root, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? [e.name] : []))),
  ),
);

/** `core/job/report.ts`, `solver/idle`, `src/ui/paper/`: with and without what comes before and the ending. */
function isThere(path: string): boolean {
  return ROOTS.map((root) => `${root}${path.replace(/\/$/, "")}`).some(
    (p) => existsSync(p) || existsSync(`${p}.ts`) || existsSync(`${p}.tsx`),
  );
}

/** Paths in the code font that begin with a folder of the program; those with a wildcard are left out. */
const pathsIn = (text: string) =>
  [...text.matchAll(/`([\w.-]+\/[\w./-]*)`/g)].map((m) => m[1]!).filter((path) => FOLDERS.has(path.split("/")[0]!));

test.each(DOCUMENTS)("%s names files that are there", (document) => {
  expect(pathsIn(readFileSync(document, "utf8")).filter((p) => !isThere(p))).toEqual([]);
});

test("the paths of a text are found, with and without the folders that may be left out", () => {
  expect(pathsIn("see `core/solver/idle.ts` and `solver/idle`, not `data/` nor `suspects/faults-*.ts`")).toEqual([
    "core/solver/idle.ts",
    "solver/idle",
  ]);
  expect(["core/solver/idle.ts", "solver/idle", "solver/gone.ts"].map(isThere)).toEqual([true, true, false]);
});

test("links between the documents lead somewhere", () => {
  const broken = DOCUMENTS.flatMap((document) =>
    [...readFileSync(document, "utf8").matchAll(/\]\((?!https?:|#)([^)#]+)/g)]
      .map((m) => new URL(m[1]!, `file:///${document}`).pathname.slice(1))
      .filter((path) => !existsSync(path))
      .map((path) => `${document}: ${path}`),
  );
  expect(broken).toEqual([]);
});
