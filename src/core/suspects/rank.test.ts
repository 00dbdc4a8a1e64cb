import { demoAmp } from "../solver/circuits-for-tests";
import { evidenceOf } from "./job-evidence";
import { gathered, type Evidence } from "../diagnosis/evidence";
import { invert } from "../numeric/dense";
import { explain } from "./likelihood";
import { nextMeasurements } from "./next";
import { rank } from "./rank";
import { readEvidence } from "./readings-file";
import { FaultTable } from "./table";
import { benchCase, healthyCase } from "./test-bed";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";

const conditions = { mains: 230, without: [], set: [] };
const wren = new FaultTable(demoAmp("wren-5"));
const volts = (point: string, value: number): Evidence => ({ point, kind: "dcv", value, conditions });
const first = (...evidence: Evidence[]) => rank(wren, evidence).suspects[0]!;
const sound: [string, number][] = [
  ["B1", 268],
  ["B2", 255],
  ["B3", 220],
  ["V2.k", 7.9],
  ["V2.p", 259],
  ["V2.s", 254],
  ["V2.g", 0],
  ["V1B.p", 140],
  ["V1B.k", 1.18],
  ["V1A.p", 140],
  ["V1A.k", 1.18],
];
const walk = (changes: Record<string, number> = {}) => sound.map(([p, v]) => volts(p, changes[p] ?? v));

describe("hand-worked cases on the Wren", () => {
  test("a sound walk: nothing wrong", () => expect(first(...walk())).toMatchObject({ fault: "nothing wrong", refs: [] }));
  test("volts on the output grid and a high cathode: the coupling capacitor leaks", () => {
    // 4 V across R5 470 kΩ from 131 V: about 15 MΩ.
    const ranked = rank(
      wren,
      walk({ "V2.g": 4, "V2.k": 9.9, B1: 260, B2: 244, B3: 209, "V2.p": 248, "V2.s": 243, "V1B.p": 131, "V1A.p": 134 }),
    );
    const s = ranked.suspects[0]!;
    // With a leg lifted a 10 MΩ meter then shows 131 V · 10/(10 + 15).
    const lifted = nextMeasurements(ranked.posterior, conditions, 20).find((n) => n.kind === "leak" && n.point === s.refs[0]);
    expect(Math.abs(Number(/about ([\d.]+) V/.exec(lifted!.why)![1]) - 52)).toBeLessThan(5);
    expect(s.group).toContain("C6 leaky");
    expect(s.group.length).toBeLessThanOrEqual(5);
    expect(s.explains).toEqual(expect.arrayContaining(["V2.g", "V2.k"]));
    const leak = ranked.posterior.weighed.find((w) => w.fault.name === "C6 leaky");
    expect(Math.abs(Math.log(leak!.fitted! / 15e6))).toBeLessThan(0.5);
  });
  test("the output cathode floats up and the rails rise: its resistor is open", () => {
    const s = first(
      ...walk({
        "V2.k": 19.4,
        B1: 319,
        B2: 315,
        B3: 273,
        "V2.p": 319,
        "V2.s": 315,
        "V1B.p": 176,
        "V1A.p": 176,
        "V1B.k": 1.4,
        "V1A.k": 1.4,
      }),
    );
    expect(s.group).toEqual(expect.arrayContaining(["R4 open"]));
  });
  test("half the cathode voltage, rails up a little: a weak tube", () => {
    const s = first(...walk({ "V2.k": 4.6, B1: 287, B2: 279, B3: 241, "V2.p": 281, "V2.s": 279, "V1B.p": 153, "V1A.p": 153 }));
    expect(s.group[0]).toMatch(/V2 weak|R4 low/);
    expect(s.group).toContain("V2 weak");
  });
  test("a plate far down with less cathode current: its load has gone high", () => {
    const s = first(...walk({ "V1A.p": 88, "V1A.k": 0.79 }));
    expect(s.fault).toBe("R8 high");
    expect(s.fitted).toBeGreaterThan(1.5);
    expect(s.fitted).toBeLessThan(3.5);
  });
  test("no bias at the Drover's grids", () => {
    const drover = new FaultTable(demoAmp("drover-40"));
    const s = rank(drover, [volts("BIAS", -0.3), volts("V5.g", -0.2), volts("V6.g", -0.2)]).suspects[0]!;
    expect(s.groupProbability).toBeGreaterThan(0.5);
    expect([...s.group]).toEqual(expect.arrayContaining([expect.stringMatching(/BS dead|C20 shorted|BS half dead/)]));
  });
});

describe("slips, contradictions, too little", () => {
  test("a reading a thousand times too small is asked for again, and does not hide the truth", () => {
    const r = rank(
      wren,
      walk({ "V2.g": 4, "V2.k": 9.9, B1: 0.26, B2: 244, B3: 209, "V2.p": 248, "V2.s": 243, "V1B.p": 131, "V1A.p": 134 }),
    );
    expect(r.suspects[0]!.group).toContain("C6 leaky");
    expect(r.recheck).toEqual(["B1"]);
  });
  test("two readings swapped are both asked for again", () => {
    const r = rank(wren, walk({ "V1A.p": 1.18, "V1A.k": 140 }));
    expect(r.recheck.length).toBeGreaterThan(0);
    expect(["V1A.p", "V1A.k"]).toEqual(expect.arrayContaining(r.recheck.slice(0, 1)));
  });
  test("another amp's readings: the circuit is doubted, no part is accused with certainty", () => {
    const r = rank(wren, [
      volts("B1", 410),
      volts("B2", 130),
      volts("B3", 395),
      volts("V2.k", 31),
      volts("V2.p", 90),
      volts("V2.s", 12),
      volts("V1B.p", 300),
      volts("V1A.p", 4),
      volts("V1A.k", 77),
    ]);
    expect(r.circuitDoubtful).toBe(true);
  });
  test("no readings: nothing wrong and the priors; the next measurement is a cheap one", () => {
    const r = rank(wren, []);
    expect(r.suspects[0]!.fault).toBe("nothing wrong");
    const [next] = nextMeasurements(r.posterior, conditions);
    expect(next!.gainBits).toBeGreaterThan(0.1);
    expect(next!.cost).toBeLessThanOrEqual(1.2);
  });
  test("what no direct voltage can show is not cleared", () => {
    const { notYetTestable } = rank(wren, walk());
    expect(notYetTestable).toEqual(expect.arrayContaining([{ fault: "C5 open", test: expect.stringContaining("a tone through C5") }]));
  });
  test("a reading at the wrong pin, the screen's in place of the grid's, is asked for again first", () => {
    const r = rank(wren, walk({ "V2.g": 251 }));
    expect(r.recheck).toEqual(["V2.g"]);
  });
  test("what was taken again with the same outcome is no slip any more: it is not asked for a third time", () => {
    const open = wren.hypotheses.findIndex((h) => h.fault.name === "R9 open");
    const shows = (point: string) => wren.shown(conditions)[open]!.volts[wren.points.indexOf(point)]!;
    const floats = shows("V1A.k");
    const taken = [...["B1", "B2", "B3"].map((p) => volts(p, shows(p))), volts("V1A.k", floats)];
    const chance = (evidence: Evidence[]) => rank(wren, evidence).suspects.find((s) => s.group.includes("R9 open"))?.groupProbability ?? 0;
    expect(chance(gathered([...taken, volts("V1A.k", floats * 1.004)]))).toBeGreaterThan(chance(taken));
    // Nothing explains it, but twice the same is not asked for a third time.
    const odd = [...walk(), volts("V2.k", 48), volts("V2.k", 48.3)];
    expect(rank(wren, walk({ "V2.k": 48 })).recheck).toEqual(["V2.k"]);
    expect(rank(wren, gathered(odd))).toMatchObject({ recheck: [], standsAlone: ["V2.k"] });
  });
  test("observations that contradict each other leave a ranking that adds up", () => {
    const saw = (name: string): Evidence => ({ point: name, kind: "observe", value: 1, conditions });
    const r = rank(wren, [...walk(), saw("V2 cold"), saw("V2 very hot"), saw("V2 plate glows"), saw("dead quiet"), saw("hum")]);
    const sum = r.posterior.weighed.reduce((total, w) => total + w.weight, 0);
    expect(sum).toBeCloseTo(1, 9);
    expect(r.suspects.every((s) => Number.isFinite(s.probability))).toBe(true);
  });
  test("observations count: the tube that is cold", () => {
    const seen: Evidence = { point: "V2 cold", kind: "observe", value: 1, conditions };
    const before = rank(wren, [volts("B1", 300)]).suspects.find((s) => s.group.includes("V2 dead"))!.groupProbability;
    const after = rank(wren, [volts("B1", 300), seen]).suspects.find((s) => s.group.includes("V2 dead"))!.groupProbability;
    expect(after).toBeGreaterThan(before);
  });
});

test("on made-up amps with one fault each, the truth is among the first three; sound amps are called sound", () => {
  let [shown, hit] = [0, 0];
  for (let seed = 1; seed <= 40; seed++) {
    const c = benchCase(wren.circuit, seed, conditions);
    const healthy = wren.shown(conditions)[0]!;
    if (
      !c ||
      !c.evidence.some(
        (e) =>
          Math.abs(e.value - healthy.volts[wren.points.indexOf(e.point)]!) >
          3 * Math.hypot(healthy.sigma[wren.points.indexOf(e.point)]!, 0.02, 0.01 * e.value),
      )
    )
      continue;
    shown++;
    if (
      rank(wren, c.evidence)
        .suspects.slice(0, 3)
        .some((s) => s.group.includes(c.fault!.name))
    )
      hit++;
  }
  expect(shown).toBeGreaterThan(20);
  expect(hit / shown).toBeGreaterThanOrEqual(0.97);
  let called = 0;
  for (let seed = 1; seed <= 20; seed++)
    if (rank(wren, healthyCase(wren.circuit, seed, conditions).evidence).suspects[0]!.refs.length === 0) called++;
  expect(called).toBeGreaterThanOrEqual(18);
});

describe("the likelihood", () => {
  test("inverse and determinant of a covariance", () => {
    const a = Float64Array.of(4, 2, 2, 3);
    expect(invert(a, 2)).toBeCloseTo(Math.log(8), 12);
    expect([...a].map((v) => Number(v.toFixed(12)))).toEqual([0.375, -0.25, -0.25, 0.5]);
  });
  test("two readings that hang together: the one that breaks step is the slip", () => {
    // Both follow the mains: one sigma of 10 in common, 0.1 of their own.
    const cov = Float64Array.of(100.01, 100, 100, 100, 100.01, 100, 100, 100, 100.01);
    const e = explain(Float64Array.of(12, 12.1, 40), new Float64Array(3), cov, new Float64Array(3).fill(1 / 600), 2);
    expect(e.slips).toEqual([2]);
    const together = explain(Float64Array.of(12, 12.1, 12), new Float64Array(3), cov, new Float64Array(3).fill(1 / 600), 2);
    expect(together.slips).toEqual([]);
  });
});

describe("evidence", () => {
  test("a later reading at nearly the same mains stands for the earlier one; at half the mains it is another measurement", () => {
    const reading = (value: number, mains: number) =>
      ({ type: "reading", payload: { point: "V2.g", kind: "dcv", value, conditions: { mains } } }) as const;
    const { evidence } = evidenceOf(
      foldJob(tape([1, reading(4.3, 231)], [2, reading(0.4, 115)], [3, reading(1.02, 230)], [4, reading(1.03, 230)])),
      wren.circuit,
    );
    expect(evidence.map((e) => [e.value, e.conditions.mains, e.times])).toEqual([
      [0.4, 115, undefined],
      [1.03, 230, 2],
    ]);
  });
  test("gathered: the latest stands, agreeing ones are counted, another circumstance is another measurement", () => {
    const at = (point: string, value: number, mains = 230): Evidence => ({
      point,
      kind: "dcv",
      value,
      conditions: { mains, without: [], set: [] },
    });
    expect(gathered([at("B1", 300), at("B2", 280), at("b1", 301), at("B1", 299), at("B1", 300, 225)])).toEqual([
      { ...at("B1", 299), times: 3 },
      at("B2", 280),
      at("B1", 300, 225),
    ]);
    expect(gathered([at("B1", 300), at("B1", 301), at("B1", 320)])).toEqual([at("B1", 320)]);
    expect(gathered([at("V2.g", 0.01), at("V2.g", 0.04)])[0]!.times).toBe(2);
  });

  test("a file of readings, with conditions and observations", () => {
    const { evidence, problems } = readEvidence(
      "point,kind,value,unit,mains,without\nb1,dcv,305,V,240,\nV2.k,dcv,7400,mV,,V1\nR7,ohm,1k5,,,\nV2,ma,44,mA,,\nV2,observe,plate glows,,,\n",
      wren.circuit,
      conditions,
    );
    expect(problems).toEqual([]);
    expect(evidence).toMatchObject([
      { point: "B1", value: 305, conditions: { mains: 240 } },
      { point: "V2.k", value: 7.4, conditions: { mains: 230, without: ["V1"] } },
      { point: "R7", kind: "ohm", value: 1500 },
      { point: "V2", kind: "ma", value: 44 },
      { point: "V2 plate glows", kind: "observe" },
    ]);
  });
  test("every bad line is named with what is accepted", () => {
    const { problems } = readEvidence("point,kind,value\nB9,dcv,3\nB1,dcv,lots\nB1,colour,3\nV2,observe,sings\n", wren.circuit, conditions);
    expect(problems.map((p) => p.line)).toEqual([2, 3, 4, 5]);
    expect(problems[0]!.expected).toMatch(/B1, B2/);
    expect(readEvidence("a,b\n1,2", wren.circuit, conditions).problems[0]!.expected).toMatch(/^point,kind,value,unit/);
  });
  test("of a job: the latest of each point since the last change; nothing read behind a lamp", () => {
    const reading = (point: string, value: number, limiter?: string) =>
      ({ type: "reading", payload: { point, kind: "dcv", value, conditions: { mains: 230.4, ...(limiter ? { limiter } : {}) } } }) as const;
    const state = foldJob(
      tape(
        [1, reading("B1", 200)],
        [2, { type: "change", payload: { position: "C1", kind: "replacement", newPart: "47 µF", reversible: true } }],
        [3, reading("B1", 260)],
        [4, reading("b1", 266)],
        [5, reading("B2", 90, "lamp")],
        [6, reading("Z9", 1)],
      ),
    );
    const job = evidenceOf(state, wren.circuit);
    expect(job.evidence).toEqual([{ point: "B1", kind: "dcv", value: 266, conditions: { mains: 230, without: [], set: [] } }]);
    expect(job.since).toMatchObject({ position: "C1" });
    expect(job.leftOut.map((l) => l.point)).toEqual(["B2", "Z9"]);
  });
});
