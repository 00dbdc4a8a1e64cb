/** Blocks put in, taken out, moved, turned: what comes of it still solves, and what was not meant keeps every byte. */

import fc from "fast-check";
import { readCircuit } from "../circuit/read";
import { operatingPoint } from "../solver/operating-point";
import { runEngine } from "../headless/headless";
import { findTubeType } from "../tubes/library";
import { assemble } from "./assemble";
import { blocksOf, readBlockFile } from "./block-file";
import { addBlock } from "./add-block";
import { canBecome, setOption, setPort, setTube, turnBlock } from "./change-block";
import { moveBlock, removeBlock } from "./move-block";
import { judgeBlock } from "./judge-block";
import { findKind } from "./kinds";
import { readLineUp } from "./line-up";
import { propose } from "./propose";
import { slotsOf, typeValue } from "./values";
import { writeBlockFile } from "./write-blocks";
import { solveOnce } from "../expectation/solve-once";

const ampOf = (tubes: string, answers = {}) =>
  assemble({ maker: "Test", model: "T", mains: 230, hertz: 50 }, propose(readLineUp(tubes), answers).chain);
const PUSH_PULL = ampOf("12AX7 12AX7 6L6GC 6L6GC GZ34");
const SINGLE = ampOf("12AX7 EL84 EZ80");

/** Reads, changes, writes; the text must read without errors and converge. */
function changed(text: string, change: (file: ReturnType<typeof readBlockFile>) => ReturnType<typeof readBlockFile>): string {
  const out = writeBlockFile(change(readBlockFile(text)));
  const { circuit, errors } = readCircuit(out);
  expect(errors).toEqual([]);
  expect(operatingPoint(circuit, { mains: 230 }).converged).toBe(true);
  expect(readBlockFile(out).broken).toEqual([]);
  return out;
}
const block = (text: string, id: string) => blocksOf(readBlockFile(text)).find((b) => b.id === id)!;
const linesNotIn = (a: string, b: string) => a.split("\n").filter((line) => !b.split("\n").includes(line));

describe("into and out of the signal", () => {
  it("a tone control across it and out again gives the very same file", () => {
    const put = changed(SINGLE, (f) => addBlock(f, "tone-control", "V1A").file);
    expect(block(put, "CUT").ports.in).toBe(block(put, "V1A").ports.out);
    expect(changed(put, (f) => removeBlock(f, "CUT"))).toBe(SINGLE);
  });

  it("a tone stack behind a stage takes its plate; taken out, the stage is coupled again", () => {
    const put = changed(SINGLE, (f) => addBlock(f, "tone-stack", "V1A").file);
    expect(block(put, "V1A").options.coupling).toBe("direct");
    expect(block(put, "VOL1").ports.in).toBe(block(put, "TONE1").ports.out);
    expect(
      block(
        changed(put, (f) => removeBlock(f, "TONE1")),
        "V1A",
      ).options.coupling,
    ).toBe("capacitor");
  });

  it("a stage more hands on what it gets; heaters have its tube", () => {
    const tubes = [{ name: "V4A", type: findTubeType("12AX7")! }];
    const put = changed(SINGLE, (f) => addBlock(f, "triode", "VOL1", tubes, { input: "none" }).file);
    expect(block(put, "V4A").ports.in).toBe(block(put, "VOL1").ports.out);
    expect(block(put, "V1B").ports.in).toBe(block(put, "V4A").ports.out);
    expect(readCircuit(put).circuit.heaters.flatMap((h) => h.tubes)).toEqual(["V1", "V2", "V4", "V3"]);
  });

  it("a grid that free lines hold is left alone", () => {
    const text = SINGLE.replace(/\*@block VOL1[\s\S]*?\*@endblock\n/, "R90 o_v1a o_vol1 100k\nR91 o_vol1 0 1MEG\n");
    expect(
      block(
        changed(text, (f) => addBlock(f, "bleeder", "PS").file),
        "V1B",
      ).options.input,
    ).toBe("none");
  });

  it("two blocks change places", () => {
    const put = changed(SINGLE, (f) => addBlock(f, "bass-treble", "VOL1").file);
    const moved = changed(put, (f) => moveBlock(f, "TONE1", -1));
    expect(block(moved, "TONE1").ports.in).toBe(block(moved, "V1A").ports.out);
    expect(block(moved, "VOL1").ports.in).toBe(block(moved, "TONE1").ports.out);
    expect(block(moved, "V1B").ports.in).toBe(block(moved, "VOL1").ports.out);
    expect(moveBlock(readBlockFile(SINGLE), "IN", -1).sections).toEqual(readBlockFile(SINGLE).sections);
  });
});

describe("supplies", () => {
  it("one filter section more takes the first stages; taken out, they are where they were", () => {
    const put = changed(SINGLE, (f) => addBlock(f, "filter", "F2").file);
    const added = blocksOf(readBlockFile(put)).find((b) => b.kind === "filter" && !["F1", "F2"].includes(b.id))!;
    expect(added.ports).toMatchObject({ from: "b3", out: "b4" });
    expect(block(put, "V1A").ports.rail).toBe("b4");
    const back = changed(put, (f) => removeBlock(f, added.id));
    expect(block(back, "V1A").ports.rail).toBe("b3");
  });

  it("a standby switch stands between the reservoir and all behind it", () => {
    const put = changed(PUSH_PULL, (f) => addBlock(f, "standby", "PS").file);
    expect(block(put, "F1").ports.from).toBe("b1s");
    expect(block(put, "V3").ports.rail).toBe("b1s");
  });

  it("a stage is hung on another rail", () => {
    const text = changed(PUSH_PULL, (f) => setPort(f, "V1A", "rail", "b2"));
    expect(readCircuit(text).circuit.elements.find((e) => e.nodes.includes("b2") && e.nodes.includes("o_v1a"))).toBeDefined();
  });
});

describe("turned into another kind", () => {
  it("cathode bias to fixed brings a supply and an adjuster along, and back lets them go; other parts keep their lines", () => {
    const cathode = ampOf("12AX7 12AX7 6V6 6V6 5Y3");
    const fixed = changed(cathode, (f) => setOption(f, "V3", "biasing", "fixed, sensed"));
    expect(Object.keys(block(fixed, "V3").parts)).toEqual(expect.arrayContaining(["upper sensing resistor", "lower sensing resistor"]));
    expect(block(fixed, "V3").parts["cathode resistor"]).toBeUndefined();
    const solved = solveOnce(readCircuit(fixed).circuit, { mains: 230, without: [], set: [] });
    expect(solved.points["V3.g"]).toBeLessThan(-10);
    const back = changed(fixed, (f) => setOption(f, "V3", "biasing", "cathode"));
    expect(blocksOf(readBlockFile(back)).map((b) => b.kind)).not.toContain("bias-supply");
    expect(linesNotIn(cathode, back).every((line) => /_v3/.test(line))).toBe(true);
  });

  it("an inverter keeps its tubes and what it feeds", () => {
    const text = changed(PUSH_PULL, (f) => turnBlock(f, "V2A", "paraphase"));
    expect(block(text, "V2A").kind).toBe("paraphase");
    expect(block(text, "V3").ports).toMatchObject({ in: block(text, "V2A").ports.out, in2: block(text, "V2A").ports.out2 });
  });

  it("another type of tube, and more of them", () => {
    const text = changed(PUSH_PULL, (f) => setTube(f, "V3", "tube 1", { name: "V3", type: "KT66" }));
    expect(readCircuit(text).circuit.elements.find((e) => e.name === "V3")!.type).toBe("KT66");
    const four = changed(PUSH_PULL, (f) => setOption(f, "V3", "pairs", "two"));
    expect(readCircuit(four).circuit.elements.filter((e) => e.type === "6L6GC")).toHaveLength(4);
  });

  it("a tube of another base is probed at its own pins; a technician's own words for a place stay", () => {
    const text = changed(SINGLE, (f) => setTube(f, "V2", "tube 1", { name: "V2", type: "6V6GT" }));
    const pin = (t: string, name: string) => readCircuit(t).circuit.points.find((p) => p.name === name)!.pin;
    expect([pin(SINGLE, "V2.p"), pin(SINGLE, "V2.g")]).toEqual(["V2 pin 7", "V2 pin 2"]);
    expect([pin(text, "V2.p"), pin(text, "V2.g")]).toEqual(["V2 pin 3", "V2 pin 5"]);
    const own = SINGLE.replace('pin="V2 pin 7"', 'pin="eyelet 12"');
    expect(
      pin(
        changed(own, (f) => setTube(f, "V2", "tube 1", { name: "V2", type: "6V6GT" })),
        "V2.p",
      ),
    ).toBe("eyelet 12");
    const series = changed(SINGLE, (f) => setOption(f, "PS", "reservoir", "series"));
    expect(pin(series, "B1")).toBe(`${block(series, "PS").parts["upper reservoir"]!.name} +`);
  });

  it("a transformer whose impedance was typed gets its taps, and loses them again", () => {
    const push = ampOf("12AX7 12AX7 6V6 6V6 5Y3");
    const at = slotsOf(readBlockFile(push)).find((s) => s.says === "output transformer")!;
    const typed = (typeValue(push, at, "6k6") as { text: string }).text;
    const tapped = changed(typed, (f) => setOption(f, "V3", "screens", "ultralinear"));
    const transformer = (t: string) => readCircuit(t).circuit.elements.find((e) => e.type === "OPT_PP")!;
    expect(transformer(tapped).params).toMatchObject({ zpp: 6600, ul: 0.4 });
    expect(transformer(changed(tapped, (f) => setOption(f, "V3", "screens", "resistor"))).params.ul).toBeUndefined();
  });

  it("a rectifier is called after its socket, or has none", () => {
    const solid = changed(SINGLE, (f) => setOption(f, "PS", "rectifier", "silicon"));
    expect(block(solid, "PS").parts.rectifier!.name).toBe("PS");
    const tube = changed(solid, (f) => setOption(f, "PS", "rectifier", "tube"));
    expect(block(tube, "PS").parts.rectifier!.name).toMatch(/^V\d$/);
    expect(readCircuit(tube).circuit.heaters.flatMap((h) => h.tubes)).toContain(block(tube, "PS").parts.rectifier!.name);
  });

  it("notes on a part that nobody has typed a value for stay when its value is usual anew", () => {
    const push = ampOf("12AX7 12AX7 6V6 6V6 5Y3").replace(/^(R\d+ k_v3 0 \S+ ;)/m, "$1@year 1961 ");
    const text = changed(push, (f) => setOption(f, "V3", "pairs", "two"));
    expect(block(text, "V3").parts["cathode resistor"]!.notes.year).toBe(1961);
  });

  it("a control across the signal becomes one in it, and back: what hung on it hangs on it", () => {
    const put = changed(SINGLE, (f) => addBlock(f, "tone-control", "V1A").file);
    const turned = changed(put, (f) => turnBlock(f, "CUT", "bass-treble"));
    expect(block(turned, "VOL1").ports.in).toBe(block(turned, "CUT").ports.out);
    const back = changed(turned, (f) => turnBlock(f, "CUT", "tone-control"));
    expect(block(back, "VOL1").ports.in).toBe(block(back, "V1A").ports.out);
  });

  it("offers only kinds that can hang where it hangs", () => {
    const kinds = (id: string) => canBecome(block(PUSH_PULL, id)).map((k) => k.kind);
    expect(kinds("PS")).toEqual(["bridge", "half-wave", "doubler", "line-connected"]);
    expect(kinds("F1")).toEqual(["standby"]);
    expect(kinds("V3")).toEqual([]);
    expect(kinds("V2A")).toEqual(["split-load", "paraphase", "transformer-inverter"]);
    for (const id of ["PS", "V1A", "TONE1", "VOL1", "V2A", "IN"])
      for (const kind of kinds(id)) changed(PUSH_PULL, (f) => turnBlock(f, id, kind));
  });

  it("every other byte stays: comments, odd spaces, free lines, a technician's own point", () => {
    const text = SINGLE.replace(
      "*@endblock\n*@block F1",
      "* seen on the chassis, red spot\n*@endblock\n* between the blocks\n*@block F1",
    ).replace(/^(R\d+) (k_v1a) 0 1\.5k .*$/m, "$1   $2  0   1.5k  ;@tol 5%   @watts 1  @prov seen");
    const out = changed(text, (f) => setOption(f, "V1A", "stopper", "yes"));
    expect(linesNotIn(text, out).every((line) => /V1A|_v1a|o_in/.test(line))).toBe(true);
    expect(out).toContain("* seen on the chassis, red spot");
    expect(out).toContain("* between the blocks");
    expect(out).toContain("  0   1.5k  ;@tol 5%   @watts 1  @prov seen");
  });
});

it("what nobody has typed is usual anew for another tube or more of them; what was typed stays", () => {
  const cathode = ampOf("12AX7 12AX7 6V6 6V6 5Y3");
  const ohms = (text: string) => block(text, "V3").parts["cathode resistor"]!.value!;
  const four = changed(cathode, (f) => setOption(f, "V3", "pairs", "two"));
  // Twice the tubes, half the resistor.
  expect(ohms(four) / ohms(cathode)).toBeCloseTo(0.5, 1);
  expect(block(four, "V3").parts["cathode resistor"]!.name).toBe(block(cathode, "V3").parts["cathode resistor"]!.name);
  const typed = (
    typeValue(
      cathode,
      slotsOf(readBlockFile(cathode)).find((s) => s.says === "cathode resistor" && s.block === "V3")!,
      "270",
    ) as { text: string }
  ).text;
  expect(ohms(changed(typed, (f) => setOption(f, "V3", "pairs", "two")))).toBe(270);
});

it("any row of changes leaves a file that can be read, whose blocks are whole", () => {
  const kinds = [
    "tone-control",
    "tone-stack",
    "bass-treble",
    "volume",
    "filter",
    "bleeder",
    "standby",
    "effects-loop",
    "feedback",
    "tremolo-grid",
  ];
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(3), fc.nat(40), fc.nat(40)), { minLength: 1, maxLength: 6 }), (steps) => {
      let text = PUSH_PULL;
      for (const [what, a, b] of steps) {
        const file = readBlockFile(text);
        const blocks = blocksOf(file);
        const at = blocks[a % blocks.length]!;
        const kind = findKind(at.kind)!;
        if (what === 0)
          text = writeBlockFile(
            addBlock(file, kinds[b % kinds.length]!, at.id, [{ name: `V${20 + blocks.length}A`, type: findTubeType("12AX7")! }]).file,
          );
        else if (what === 1 && ["tone", "feedback"].includes(kind.group)) text = writeBlockFile(removeBlock(file, at.id));
        else if (what === 2) text = writeBlockFile(moveBlock(file, at.id, b % 2 === 0 ? 1 : -1));
        else if (kind.options.length > 0) {
          const option = kind.options[b % kind.options.length]!;
          text = writeBlockFile(setOption(file, at.id, option.key, option.values[(a + b) % option.values.length]!));
        }
        // A grid may be left without a leak, which the reader says; a line that cannot be read may not come of it.
        const { errors } = readCircuit(text);
        expect(errors.filter((e) => !/floats/.test(e.found))).toEqual([]);
        expect(readBlockFile(text).broken).toEqual([]);
      }
    }),
    { numRuns: 60 },
  );
});

describe("values", () => {
  const slot = (text: string, says: string, blockId: string) =>
    slotsOf(readBlockFile(text)).find((s) => s.says === says && s.block === blockId)!;

  it("come in the order of the chassis: supply, input, output", () => {
    const says = slotsOf(readBlockFile(SINGLE)).map((s) => s.says);
    expect(says.slice(0, 3)).toEqual(["its secondary, each half, V AC", "reservoir", "filter resistor"]);
    expect(says.at(-1)).toBe("load");
    expect(slotsOf(readBlockFile(SINGLE)).every((s) => s.prov === "assumed")).toBe(true);
  });

  it("are written where they stand and marked as seen", () => {
    const typed = typeValue(SINGLE, slot(SINGLE, "plate load", "V1A"), "220k");
    expect(typed).toMatchObject({ ok: true, value: 220e3, doubt: undefined });
    const text = (typed as { text: string }).text;
    expect(linesNotIn(text, SINGLE)).toHaveLength(1);
    expect(slot(text, "plate load", "V1A")).toMatchObject({ value: 220e3, prov: "seen", usual: 100e3 });
  });

  it("take 32 for microfarads where that is what stands there, and 0.022 too", () => {
    expect(typeValue(SINGLE, slot(SINGLE, "reservoir", "PS"), "32")).toMatchObject({ ok: true, value: 32e-6 });
    expect(typeValue(SINGLE, slot(SINGLE, "coupling capacitor", "V1A"), "0.022")).toMatchObject({ ok: true, value: 22e-9 });
  });

  it("refuse what is none with what is accepted, and doubt what is a thousand times off", () => {
    expect(typeValue(SINGLE, slot(SINGLE, "plate load", "V1A"), "lots")).toMatchObject({ ok: false, why: expect.stringContaining("lots") });
    expect(typeValue(SINGLE, slot(SINGLE, "plate load", "V1A"), "22F")).toMatchObject({ ok: false });
    expect(typeValue(SINGLE, slot(SINGLE, "plate load", "V1A"), "-1")).toMatchObject({ ok: false });
    expect(typeValue(SINGLE, slot(SINGLE, "plate load", "V1A"), "100")).toMatchObject({
      ok: true,
      doubt: "100 Ω where 100 kΩ is usual: 1000 times off",
    });
  });

  it("are not changed by half where a line goes on in the next one", () => {
    const text = SINGLE.replace(/^(R\d+ b3 p_v1a) (100k)/m, "$1\n+ $2");
    expect(typeValue(text, slot(text, "plate load", "V1A"), "220k")).toMatchObject({
      ok: false,
      why: expect.stringContaining("over several lines"),
    });
  });

  it("the load's ohms are the transformer's as well", () => {
    const typed = typeValue(SINGLE, slot(SINGLE, "load", "V2"), "15") as { text: string };
    expect(readCircuit(typed.text).circuit.elements.find((e) => e.type === "OPT_SE")!.params.load).toBe(15);
  });
});

it("says which block cannot be right and why", () => {
  const wrong = (
    typeValue(
      SINGLE,
      slotsOf(readBlockFile(SINGLE)).find((s) => s.says === "cathode resistor" && s.block === "V2")!,
      "22",
    ) as { text: string }
  ).text;
  const file = readBlockFile(wrong);
  const solution = solveOnce(file.circuit, { mains: 230, without: [], set: [] });
  const slots = slotsOf(file);
  expect(judgeBlock(block(wrong, "V2"), solution, slots).wrong[0]).toMatch(/V2 would run at \d+ % of its plate watts/);
  expect(judgeBlock(block(wrong, "V1A"), solution, slots).wrong).toEqual([]);
  expect(judgeBlock(block(wrong, "V1A"), solution, slots).figures[0]).toMatch(/^\d+ V \d/);
});

it("an amp put together ranks its faults at once: the leaky coupling capacitor comes first", () => {
  const text = ampOf("12AX7 12AX7 6V6 6V6 5Y3");
  const { circuit } = readCircuit(text);
  const leaky = block(text, "V2A").parts["upper coupling capacitor"]!.name;
  const shown = solveOnce(circuit, { mains: 230, without: [], set: [`${leaky}=leak:2M`] }).points;
  const points = ["B1", "B2", "B3", "V3.k", "V3.g", "V4.g", "V3.p", "V4.p", "V2A.p"];
  const readings = ["point,kind,value,unit", ...points.map((p) => `${p},dcv,${shown[p]!.toPrecision(4)},V`), ""].join("\n");
  const outcome = runEngine(["rank", "amp.cir", "readings.csv", "--mains", "230"], (path) => (path === "amp.cir" ? text : readings));
  const { suspects } = JSON.parse(outcome.out!) as { suspects: { fault: string }[] };
  expect(suspects[0]!.fault).toBe(`${leaky} leaky`);
});
