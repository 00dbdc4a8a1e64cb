import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import type { EventDraft } from "../tape/events/event";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { unmetGates, type Intended } from "./power-gates";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;
const halberd = load("halberd-120");
const minor = load("minor");
const ids = (circuit: typeof halberd | undefined, through: string, without: string[], ...lines: EventDraft[]) =>
  asked(circuit, { through, without }, ...lines);
const asked = (circuit: typeof halberd | undefined, intended: Intended, ...lines: EventDraft[]) =>
  unmetGates(circuit, foldJob(tape(...lines.map((l, i): [number, EventDraft] => [i, l]))), intended, circuit === minor ? 117 : 230).map(
    (g) => g.id,
  );
const stage = (stage: string): EventDraft => ({ type: "stage", payload: { stage, result: "passed" } });
const on = (without: string[] = []): EventDraft => ({ type: "power", payload: { state: "on", plug: "in", without } });

describe("what stands against power", () => {
  test("bias unproven, until the sockets were passed; a change asks anew", () => {
    expect(ids(halberd, "variable", [])).toEqual(["bias"]);
    expect(ids(halberd, "variable", [], stage("bias"))).toEqual([]);
    const fitted: EventDraft = { type: "change", payload: { position: "C20", kind: "replacement", newPart: "47u", reversible: true } };
    expect(ids(halberd, "variable", [], stage("bias"), fitted)).toEqual(["bias"]);
    // An amp that has run here with its output tubes in is not asked again.
    expect(ids(halberd, "variable", [], on(), { type: "power", payload: { state: "off", plug: "out" } })).toEqual([]);
    // Read at each socket with its tube out, it is met, until a part is changed.
    const without = ["V4", "V5", "V6", "V7"];
    const socket = (point: string, value: number, out = without): EventDraft => ({
      type: "reading",
      payload: { point, kind: "dcv", value, conditions: { without: out } },
    });
    const names = unmetGates(halberd, foldJob([]), { through: "variable", without: [] }, 230)[0]!.says;
    const points = [...names.matchAll(/(V\d\.g\d?) \(/g)].map((m) => m[1]!);
    expect(points).toHaveLength(4);
    const read = points.map((p) => socket(p, -45));
    expect(ids(halberd, "variable", [], ...read)).toEqual([]);
    expect(ids(halberd, "variable", [], ...read.slice(1))).toEqual(["bias"]);
    expect(ids(halberd, "variable", [], ...read, socket(points[0]!, -3))).toEqual(["bias"]);
    expect(ids(halberd, "variable", [], ...points.map((p) => socket(p, -45, [])))).toEqual(["bias"]);
    expect(ids(halberd, "variable", [], ...read, fitted)).toEqual(["bias"]);
    // With them out there is no bias to lose; but C4 and C5 then see 516 V.
    expect(ids(halberd, "variable", ["V4", "V5", "V6", "V7"])).toEqual(["rails"]);
  });
  test("straight to the wall, a danger left open, a fuse that has gone", () => {
    expect(ids(undefined, "straight", [])).toEqual(["straight"]);
    const danger: EventDraft = {
      type: "finding",
      payload: { station: "look", place: "cord", text: "bare", severity: "danger", brief: "allowed" },
    };
    expect(ids(undefined, "lamp", [], danger)).toEqual(["danger"]);
    expect(ids(undefined, "lamp", [], danger, { type: "finding-closed", payload: { finding: 1, how: "new cord" } })).toEqual([]);
    const blown: EventDraft = { type: "observation", payload: { name: "fuse blows", conditions: {} } };
    expect(ids(undefined, "variable", [], blown)).toEqual(["fuse"]);
    expect(ids(undefined, "lamp", [], blown)).toEqual([]);
  });
  test("a line-connected set wants its isolation transformer, and no tube out of the string", () => {
    expect(ids(minor, "variable", [])).toEqual(["isolation"]);
    const behind = { through: "variable", without: [], isolated: true };
    expect(asked(minor, { ...behind, without: ["V2"] }, stage("isolation"))).toEqual(["series", "rails"]);
    expect(asked(minor, behind, stage("isolation"))).toEqual([]);
    // It is asked for at each power-on: that it was there at Bring-up is not enough, nor is it to say so without having looked.
    expect(ids(minor, "variable", [], stage("isolation"))).toEqual(["isolation"]);
    expect(asked(minor, behind)).toEqual(["isolation"]);
  });
  test("an unloaded rail above a capacitor's rating is said before power", () => {
    const low = readCircuit(readFileSync("demo/amps/lantern-15.cir", "utf8").replace(/@volts 500/g, "@volts 350")).circuit;
    const [gate] = unmetGates(low, foldJob([]), { through: "lamp", without: ["V1", "V2", "V3", "V4", "V5"] }, 230);
    expect(gate).toMatchObject({ id: "rails", says: expect.stringContaining("C1 can reach 382 V and is rated 350 V") });
    expect(unmetGates(low, foldJob([]), { through: "lamp", without: ["V1", "V2", "V3", "V4", "V5", "V6"] }, 230)).toEqual([]);
  });
});
