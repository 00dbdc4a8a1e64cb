import { readFileSync } from "node:fs";
import type { Circuit } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";

export const AMPS = ["wren-5", "lantern-15", "drover-40", "minor", "picture-house", "halberd-120"];

export const demoAmp = (name: string): Circuit => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

/** A circuit from its element lines. @throws Error with every bad line. */
export function circuitOf(...lines: string[]): Circuit {
  const { circuit, errors } = readCircuit(["test", ...lines].join("\n"));
  if (errors.length > 0) throw new Error(errors.map((e) => `${e.line}: ${e.found}; expected ${e.expected}`).join("\n"));
  return circuit;
}
