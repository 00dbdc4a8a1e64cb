/** The API's description and its routes say the same. */

import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

function routes(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? routes(join(folder, e.name)) : e.name === "route.ts" ? [join(folder, e.name)] : [],
  );
}

test("every route and method is described, and nothing else is", () => {
  const described = JSON.parse(readFileSync("docs/openapi.json", "utf8")) as {
    paths: Record<string, Record<string, { responses: object }>>;
  };
  const inFile = Object.entries(described.paths)
    .flatMap(([path, methods]) => Object.keys(methods).map((m) => `${m} ${path}`))
    .sort();
  const inCode = routes("src/app/api/v1")
    .flatMap((file) => {
      const path = file
        .replace(/^src\/app/, "")
        .replace(/\/route\.ts$/, "")
        .replace(/\[(\w+)\]/g, "{$1}");
      return [...readFileSync(file, "utf8").matchAll(/export (?:async )?function (GET|POST|PUT|PATCH|DELETE)/g)].map(
        (m) => `${m[1]!.toLowerCase()} ${path}`,
      );
    })
    .sort();
  expect(inFile).toEqual(inCode);
});
