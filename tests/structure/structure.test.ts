import { readFileSync } from "node:fs";
import { differences, importsOfGroups, isForTests, readImports, ringsIn, type SourceFile } from "./imports";
import { CORE_PACKAGES, CORE_ROOMS, LAYERS, UI_ROOMS } from "./rooms";

const all = readImports("src");
const shipped = all.filter((f) => !isForTests(f.path));

const layerOf = (path: string) => (path.includes("/") ? path.split("/")[0] : "app");
/** Folder of a file within a layer; what lies beside the folders is no room's. */
const roomIn = (layer: string) => (path: string) => {
  const [top, room, file] = path.split("/");
  return top === layer && file ? room : undefined;
};
const graphOf = (files: readonly SourceFile[]) => new Map(files.map((f) => [f.path, f.imports]));

test("no file imports itself by way of others, types included", () => {
  expect(shipped.length).toBeGreaterThan(700);
  expect(ringsIn(graphOf(shipped))).toEqual([]);
});

test.each([
  ["the layers of src", layerOf, LAYERS],
  ["the rooms of the core", roomIn("core"), CORE_ROOMS],
  ["the rooms of the interface", roomIn("ui"), UI_ROOMS],
] as const)("%s import what their table says, no more and no less, and nothing that stands above them", (_, groupOf, table) => {
  expect(differences(importsOfGroups(shipped, groupOf), table)).toEqual([]);
});

test("the core uses small packages only, each of them", () => {
  const used = new Set(shipped.filter((f) => f.path.startsWith("core/")).flatMap((f) => f.packages));
  expect([...used].sort()).toEqual(CORE_PACKAGES);
});

test("the core is tested on its own", () => {
  const above = /^(server|app|ui|workers)\//;
  const wrong = all.filter((f) => f.path.startsWith("core/") && f.imports.some((i) => above.test(i)));
  expect(wrong.map((f) => f.path)).toEqual([]);
});

test("docs/architecture.md tells the rooms of the core in the order of the table", () => {
  const told = [...readFileSync("docs/architecture.md", "utf8").matchAll(/^\| `([a-z-]+)\/` \|/gm)].map((m) => m[1]);
  expect(told).toEqual(Object.keys(CORE_ROOMS));
});

/** Trees made up here, with a mistake each. */
describe("what is looked for is found:", () => {
  const file = (path: string, ...imports: string[]): SourceFile => ({ path, imports, packages: [] });

  test("rings of files, each once, and none where there is none", () => {
    const graph = new Map([
      ["a", ["b", "d"]],
      ["b", ["c"]],
      ["c", ["a"]],
      ["d", ["e"]],
      ["e", []],
      ["f", ["f"]],
    ]);
    expect(ringsIn(graph)).toEqual([["a", "b", "c"], ["f"]]);
    expect(
      ringsIn(
        new Map([
          ["a", ["b", "c"]],
          ["b", ["d"]],
          ["c", ["d"]],
        ]),
      ),
    ).toEqual([]);
  });

  const files = [file("core/low/one.ts"), file("core/high/two.ts", "core/low/one.ts")];
  const used = (more: SourceFile[] = []) => importsOfGroups([...files, ...more], roomIn("core"));
  test.each([
    ["a tree that is as its table", used(), { low: [], high: ["low"] }, []],
    [
      "an import upwards",
      used([file("core/low/up.ts", "core/high/two.ts")]),
      { low: [], high: ["low"] },
      ["low may not import high: core/low/up.ts → core/high/two.ts"],
    ],
    [
      "a permission that nobody uses",
      used([file("core/mid/x.ts")]),
      { low: [], mid: ["low"], high: ["low"] },
      ["mid may import low and does not"],
    ],
    ["a table that is upside down", used(), { high: ["low"], low: [] }, ["high stands in the table below low, which it may import"]],
    ["a room that the table lacks", used([file("core/new/x.ts")]), { low: [], high: ["low"] }, ["new is not in the table"]],
    ["a room that is gone", used(), { low: [], old: [], high: ["low"] }, ["old is in the table, and no file is in it"]],
  ])("%s", (_, imports, table, said) => {
    expect(differences(imports, table)).toEqual(said);
  });

  test("static, type-only, dynamic and exported imports alike", () => {
    const { imports } = all.find((f) => f.path === "ui/forms/file-field.tsx")!;
    // By reading it: one of the type, one dynamic, one of a value.
    expect([...imports].sort()).toEqual(["ui/forms/drop-file.tsx", "ui/forms/drop-file.tsx", "ui/forms/late.tsx"]);
  });
});
