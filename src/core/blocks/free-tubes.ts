/** Tubes for blocks that need some: free halves of twin triodes, else new sockets. */

import type { Circuit } from "../circuit/circuit";
import { findTubeType } from "../tubes/library";
import type { Block } from "./block-file";
import type { TubeRole } from "./kind";
import type { TubeSection } from "./line-up";
import { typeIn } from "./usual-of";

/** The usual tube where nothing says which: a type of the library. */
const USUAL: Record<TubeRole["kind"], string> = { triode: "12AX7", pentode: "EF86", rectifier: "GZ34" };

/**
 * A tube for each role that nothing in the blocks uses yet. @param like the type wanted, where it is of the role's kind.
 * @example freeTubes(blocks, circuit, [{ role: "tube", kind: "triode" }]) // [V2B 12AX7] where V2A is used and V2B is not
 */
export function freeTubes(
  blocks: readonly Block[],
  circuit: Pick<Circuit, "tubeTypes">,
  roles: readonly TubeRole[],
  like?: string,
): TubeSection[] {
  const used = new Map(blocks.flatMap((b) => Object.values(b.tubes).map((t) => [t.name, t.type] as const)));
  return roles.map(({ kind }) => {
    const wanted = like === undefined ? undefined : typeIn(circuit, like);
    const type = wanted?.kind === kind ? wanted : findTubeType(USUAL[kind])!;
    const half = kind === "triode" ? freeHalf(used, circuit, wanted?.kind === kind ? like : undefined) : undefined;
    const twin = kind === "triode" && type.pins.length > 1;
    const tube = half ?? { name: `${freshSocket([...used.keys()])}${twin ? "A" : ""}`, type };
    used.set(tube.name, tube.type.type);
    return tube;
  });
}

function freeHalf(
  used: ReadonlyMap<string, string>,
  circuit: Pick<Circuit, "tubeTypes">,
  like: string | undefined,
): TubeSection | undefined {
  for (const [name, typeName] of used) {
    const other = /^V\d+[AB]$/.test(name) ? `${name.slice(0, -1)}${name.endsWith("A") ? "B" : "A"}` : undefined;
    const type = typeIn(circuit, typeName);
    if (other && !used.has(other) && type?.kind === "triode" && type.pins.length > 1 && (like === undefined || like === typeName))
      return { name: other, type };
  }
  return undefined;
}

/** The next socket that nothing stands in. */
function freshSocket(taken: readonly string[]): string {
  const sockets = new Set(taken.map((n) => Number(/\d+/.exec(n)?.[0] ?? 0)));
  for (let i = 1; ; i++) if (!sockets.has(i)) return `V${i}`;
}
