/** Who imports whom, read from the text of the sources: static, type-only and dynamic imports alike. */

import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import ts from "typescript";

export interface SourceFile {
  /** From the folder that was read, with "/": "core/tubes/fit.ts". */
  path: string;
  /** The files of the same tree that it imports, in the order of its text. */
  imports: string[];
  /** The packages and Node.js modules that it imports: "d3-array", "node:fs". */
  packages: string[];
}

/** Tests, and what only they use, may look anywhere. */
export const isForTests = (path: string) => /\.test\.tsx?$|-for-tests(\.tsx?|\/)/.test(path);

/**
 * Every TypeScript file below a folder. An import that leads to no file is an error: it would hide what it imports.
 * @param root folder that "@/" stands for
 * @throws Error naming the file and the import
 */
export function readImports(root: string): SourceFile[] {
  const paths = readdirSync(root, { recursive: true, encoding: "utf8" })
    .filter((p) => /\.tsx?$/.test(p) && !p.endsWith(".d.ts"))
    .map((p) => p.split(sep).join("/"))
    .sort();
  const known = new Set(paths);
  return paths.map((path) => {
    const named = ts.preProcessFile(readFileSync(join(root, path), "utf8"), true, false).importedFiles.map((i) => i.fileName);
    const inside = named.filter((n) => n.startsWith("@/") || n.startsWith("."));
    return {
      path,
      imports: inside.flatMap((name) => resolve(root, known, path, name)),
      packages: named.filter((n) => !inside.includes(n)),
    };
  });
}

function resolve(root: string, known: ReadonlySet<string>, from: string, name: string): string[] {
  const base = name.startsWith("@/")
    ? name.slice(2)
    : relative(root, join(root, dirname(from), name))
        .split(sep)
        .join("/");
  const found = ["", ".ts", ".tsx", "/index.ts"].map((end) => base + end).find((p) => known.has(p));
  if (found) return [found];
  // Styles, data and what lies outside the tree belong to no room.
  if (base.startsWith("../") || /\.(css|json|mjs|md)$/.test(base)) return [];
  throw new Error(`${from} imports ${name}, which is no file of ${root}`);
}

/**
 * The rings in which things import each other, each once, its members in order of their names.
 * Tarjan, "Depth-first search and linear graph algorithms", SIAM J. Comput. 1 (1972).
 * @param graph what each node imports; a node that is only imported needs no entry
 * @example ringsIn(new Map([["a", ["b"]], ["b", ["a"]]])) // [["a", "b"]]
 */
export function ringsIn(graph: ReadonlyMap<string, Iterable<string>>): string[][] {
  const rings: string[][] = [];
  const index = new Map<string, number>();
  const lowest = new Map<string, number>();
  const open: string[] = [];
  const visit = (node: string) => {
    index.set(node, index.size);
    lowest.set(node, index.get(node)!);
    open.push(node);
    const lower = (to: number) => lowest.set(node, Math.min(lowest.get(node)!, to));
    for (const next of graph.get(node) ?? []) {
      if (!index.has(next)) {
        visit(next);
        lower(lowest.get(next)!);
      } else if (open.includes(next)) lower(index.get(next)!);
    }
    if (lowest.get(node) !== index.get(node)) return;
    const ring = open.splice(open.indexOf(node));
    if (ring.length > 1 || [...(graph.get(node) ?? [])].includes(node)) rings.push(ring.sort());
  };
  for (const node of graph.keys()) if (!index.has(node)) visit(node);
  return rings;
}

/**
 * What each group of files imports from other groups, with one import as the example of each.
 * @param groupOf the group of a file; undefined: it is not looked at
 */
export function importsOfGroups(
  files: readonly SourceFile[],
  groupOf: (path: string) => string | undefined,
): Map<string, Map<string, string>> {
  const used = new Map<string, Map<string, string>>();
  for (const { path, imports } of files) {
    const from = groupOf(path);
    if (from === undefined) continue;
    const others = used.get(from) ?? new Map<string, string>();
    used.set(from, others);
    for (const target of imports) {
      const to = groupOf(target);
      if (to !== undefined && to !== from && !others.has(to)) others.set(to, `${path} → ${target}`);
    }
  }
  return used;
}

/**
 * Where a table of permissions and the imports differ, a sentence each: what is imported and not allowed, what is allowed and not used,
 * what stands in the table below what it may import, and groups that only one of the two has.
 * @param table from the ground up: what each group may import
 */
export function differences(
  used: ReadonlyMap<string, ReadonlyMap<string, string>>,
  table: Readonly<Record<string, readonly string[]>>,
): string[] {
  const order = Object.keys(table);
  const said: string[] = [];
  for (const [group, others] of used) {
    const allowed = table[group];
    if (!allowed) {
      said.push(`${group} is not in the table`);
      continue;
    }
    for (const [other, example] of others) if (!allowed.includes(other)) said.push(`${group} may not import ${other}: ${example}`);
  }
  for (const [at, group] of order.entries()) {
    const others = used.get(group);
    if (!others) {
      said.push(`${group} is in the table, and no file is in it`);
      continue;
    }
    for (const other of table[group]!) {
      if (!others.has(other)) said.push(`${group} may import ${other} and does not`);
      if (order.indexOf(other) >= at) said.push(`${group} stands in the table below ${other}, which it may import`);
    }
  }
  return said;
}
