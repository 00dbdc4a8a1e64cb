/** npm run bench -- suspects: how often the true fault is named, on made-up amps with known faults; writes docs/diagnosis.md. */

import { readFileSync, writeFileSync } from "node:fs";
import { readCircuit } from "@/core/circuit/read";
import { ENOUGH } from "@/core/diagnosis/evidence";
import { nextMeasurements } from "@/core/suspects/next";
import { rank, type Ranking } from "@/core/suspects/rank";
import { judge, shows, type Judged } from "@/core/suspects/bed/judge-for-tests";
import type { RecordedCase } from "@/core/suspects/bed/spice-bench-for-tests";
import { FaultTable } from "@/core/suspects/table";
import { benchCase, healthyCase, type BenchCase } from "@/core/suspects/test-bed";

const AMPS = (process.env.AMPS ?? "wren-5,lantern-15,drover-40,minor,picture-house,halberd-120").split(",");
/** First seed; another one makes cases that nothing was ever set by. */
const SEED = Number(process.env.SEED ?? 1000);
const CASES = Number(process.env.CASES ?? 80);
/** Cases of each amp for which the readings are counted: each is ranked anew after every reading. */
const MEASURED = process.env.QUICK ? 0 : 20;
const amps: Record<string, Tally> = {};
const kinds: Record<string, Tally> = {};
const verbose = process.env.VERBOSE !== undefined;

interface Tally {
  cases: number;
  first: number;
  three: number;
  taken: number[];
  walk: number[];
}
const tally = (): Tally => ({ cases: 0, first: 0, three: 0, taken: [], walk: [] });

const healthy = { cases: 0, first: 0 };
const tables: Record<string, { lines: number; ms: number }> = {};
const times: number[] = [];
for (const name of AMPS) {
  const { circuit } = readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8"));
  const conditions = { mains: circuit.mains!.volts, without: [], set: [] };
  const table = new FaultTable(circuit);
  const started = performance.now();
  const shown = table.shown(conditions);
  const ms = performance.now() - started;
  amps[name] = tally();
  tables[name] = { lines: table.hypotheses.length, ms: Math.round(ms) };
  for (let k = 0; k < CASES; k++) {
    const c = benchCase(circuit, SEED + k, conditions);
    if (!c || !showsAtAll(c)) continue;
    const start = performance.now();
    const ranking = rank(table, c.evidence);
    times.push(performance.now() - start);
    const place = placeOf(ranking, c.fault!.name);
    const taken = amps[name]!.taken.length < MEASURED ? measurementsNeeded(c) : undefined;
    for (const t of [amps[name]!, (kinds[c.fault!.kind] ??= tally())]) {
      t.cases++;
      if (place === 0) t.first++;
      if (place >= 0 && place < 3) t.three++;
      if (taken) {
        t.taken.push(taken.best);
        t.walk.push(taken.walk);
      }
    }
    if (verbose && place !== 0)
      console.log(
        `${name} ${c.fault!.name} ${c.severity.toPrecision(3)}: place ${place}; ${ranking.suspects
          .slice(0, 3)
          .map((s) => `${s.group.join("/")} ${(s.groupProbability * 100).toFixed(0)}%`)
          .join("; ")}${ranking.recheck.length ? ` recheck ${ranking.recheck.join()}` : ""}`,
      );
  }
  for (let k = 0; k < 20; k++) {
    healthy.cases++;
    if (rank(table, healthyCase(circuit, 5000 + k, conditions).evidence).suspects[0]!.refs.length === 0) healthy.first++;
  }
  console.log(`${name}: table of ${table.hypotheses.length} in ${Math.round(ms)} ms; ${line(amps[name]!)}`);

  /** At least three sigma from healthy in a reading. */
  function showsAtAll(c: BenchCase): boolean {
    return c.evidence.some((e) => {
      const i = table.points.indexOf(e.point);
      const row = shown[0]!.sensitivities.subarray(i * table.knobCount, (i + 1) * table.knobCount);
      const sigma = Math.hypot(0.01 * shown[0]!.volts[i]!, 0.02, Math.sqrt(row.reduce((s, v) => s + v * v, 0)));
      return Math.abs(e.value - shown[0]!.volts[i]!) > 3 * sigma;
    });
  }

  /** Readings until a fault or group holds enough: by the suggestions, and by the plain walk. */
  function measurementsNeeded(c: BenchCase): { best: number; walk: number } {
    const enough = (r: Ranking) => r.suspects[0]!.groupProbability >= ENOUGH && r.suspects[0]!.refs.length > 0;
    const order = [...circuit.points].sort((a, b) => a.order - b.order).flatMap((p) => c.evidence.filter((e) => e.point === p.name));
    let walk = order.length;
    for (let n = 1; n <= order.length; n++)
      if (enough(rank(table, order.slice(0, n)))) {
        walk = n;
        break;
      }
    const taken: typeof order = [];
    while (taken.length < order.length) {
      const ranking = rank(table, taken);
      if (taken.length > 0 && enough(ranking)) break;
      const next = nextMeasurements(ranking.posterior, conditions, 40).find(
        (m) => m.kind === "dcv" && !taken.some((t) => t.point === m.point),
      );
      const e = (next && c.evidence.find((x) => x.point === next.point)) ?? order.find((x) => !taken.includes(x));
      if (!e) break;
      taken.push(e);
    }
    return { best: taken.length, walk };
  }
}

function placeOf(ranking: Ranking, fault: string): number {
  return ranking.suspects.findIndex((s) => s.group.includes(fault));
}
function median(list: number[]): number {
  return [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN;
}
function line(t: Tally): string {
  const p = (n: number) => `${((100 * n) / t.cases).toFixed(0)} %`;
  return `${t.cases} cases, first ${p(t.first)}, three ${p(t.three)}${t.taken.length ? `, readings ${median(t.taken)} against ${median(t.walk)}` : ""}`;
}

const all = Object.values(amps).reduce(
  (a, t) => ({
    cases: a.cases + t.cases,
    first: a.first + t.first,
    three: a.three + t.three,
    taken: [...a.taken, ...t.taken],
    walk: [...a.walk, ...t.walk],
  }),
  tally(),
);
console.log("all:", line(all));
console.log(`sound amps called sound: ${healthy.first} of ${healthy.cases}; rank median ${median(times).toFixed(0)} ms`);
for (const [kind, t] of Object.entries(kinds).sort()) console.log(`  ${kind}: ${line(t)}`);

const bed = handBed();
if (process.env.AMPS === undefined && process.env.SEED === undefined) {
  const cells = (t: Tally) => {
    const p = (n: number) => `${((100 * n) / t.cases).toFixed(0)} %`;
    return `${t.cases} | ${p(t.first)} | ${p(t.three)}${t.taken.length ? ` | ${median(t.taken)} | ${median(t.walk)}` : " | – | –"}`;
  };
  const head =
    "cases that show | first | among three | readings, suggested | readings, plain walk |\n| --- | --- | --- | --- | --- | --- |";
  writeFileSync(
    "docs/diagnosis.md",
    `# How often the true fault is named

Two beds. The first has faults that were written by hand as changes of the circuit file, by somebody else's idea of what goes wrong, and readings from a general SPICE: it is the one to judge by. The second draws its faults from the very list that is ranked, and shows whether the arithmetic holds.

## Faults written by hand, solved by a general SPICE

\`src/core/suspects/bed\`: the faults, the decks (tubes by Koren's plain law with parameters of their own, not the program's), and the recorded readings; \`npm run record-bed\` records them anew. Parts within tolerance, tube current 12 %, µ 4 %, 1 % reading noise, the mains anywhere within ± 4 % and untold. A case counts where some reading is off that of the same amp without the fault by 6 % and 0.08 V. A part counts as named when it stands first, or in a group that the readings cannot tell apart. Another draw of the same faults (seed 2) was used while the method was mended; the recorded ones are held to the targets by a test.

${bed}

## Faults drawn from the list

Written by \`npm run bench -- suspects\`, ${new Date().toISOString().slice(0, 10)}. Each case is an amp whose parts and tubes are drawn within tolerance (resistors tolerance/√3, tube current 15 %, µ 5 %, mains 1 %), with one fault: each kind of fault is as likely as the next, its severity
lies anywhere between the ends of its range, off the grid that the table is solved on. Every test point is read once by a meter of 0.3 % + 5 mV. A case counts when the fault shows: at least three sigma from a sound amp in some reading. *First* and *among three* count a group of faults that the
readings cannot tell apart (at most five) as one. *Readings* is the median, over the first 20 cases of each amp, until one fault or group holds 90 %. Seeds are fixed. What was set by looking: the chance of "nothing wrong" (from 20 to 40 %) after early runs on the Wren and the Lantern, how pairs are weighed after runs on the Lantern and the Drover, and the error of a dead rail after a hand-worked case on the Drover; those runs had some of these seeds. No value was chosen from the Minor, the Picture House or the Halberd, though their figures had been printed once before the sifting and the dead rail's error were added. The Halberd 120 is the one to read as held out of the tuning.

| amp | ${head}
${Object.entries(amps)
  .map(([name, t]) => `| ${name} | ${cells(t)} |`)
  .join("\n")}
| **all** | ${cells(all)} |

Sound amps called sound: ${healthy.first} of ${healthy.cases}. One ranking: median ${median(times).toFixed(0)} ms with every point read. Fault tables: ${Object.entries(
      tables,
    )
      .map(([name, t]) => `${name} ${t.lines} lines in ${t.ms} ms`)
      .join(", ")}.

| kind of fault | ${head}
${Object.entries(kinds)
  .sort()
  .map(([kind, t]) => `| ${kind} | ${cells(t)} |`)
  .join("\n")}
`,
  );
}

/** The recorded bed: per amp and kind, and how often what was said with a given probability was right. */
function handBed(): string {
  const cases = JSON.parse(readFileSync("src/core/suspects/bed/recorded.json", "utf8")) as RecordedCase[];
  const judged: Judged[] = [];
  for (const amp of [...new Set(cases.map((c) => c.amp))]) {
    const { circuit } = readCircuit(readFileSync(`demo/amps/${amp}.cir`, "utf8"));
    const table = new FaultTable(circuit);
    for (const c of cases.filter((r) => r.amp === amp && (r.refs.length === 0 || shows(r)))) judged.push(judge(table, c));
  }
  const percent = (n: number, of: number) => (of === 0 ? "–" : `${((100 * n) / of).toFixed(0)} %`);
  const row = (name: string, list: Judged[]) => {
    const faulty = list.filter((j) => j.case.refs.length > 0);
    const sound = list.filter((j) => j.case.refs.length === 0);
    const first = faulty.filter((j) => j.place === 0).length;
    const three = faulty.filter((j) => j.place >= 0 && j.place < 3).length;
    const said = sound.filter((j) => j.place === 0).length;
    return `| ${name} | ${faulty.length} | ${percent(first, faulty.length)} | ${percent(three, faulty.length)} | ${sound.length ? `${said} of ${sound.length}` : "–"} |`;
  };
  const head = "| | cases that show | true part first | among three | sound called sound |\n| --- | --- | --- | --- | --- |";
  const by = (key: (j: Judged) => string) =>
    [...new Set(judged.map(key))]
      .filter((k) => k !== "sound")
      .map((k) =>
        row(
          k,
          judged.filter((j) => key(j) === k),
        ),
      );
  const bands = [
    [0, 0.5],
    [0.5, 0.7],
    [0.7, 0.9],
    [0.9, 0.99],
    [0.99, 1.01],
  ] as const;
  const calibration = bands.map(([low, high]) => {
    const list = judged.filter((j) => j.probability >= low && j.probability < high);
    return `| ${Math.round(100 * low)} to ${Math.min(100, Math.round(100 * high))} % | ${list.length} | ${percent(list.filter((j) => j.place === 0).length, list.length)} |`;
  });
  const sure = judged.filter((j) => j.probability >= 0.9);
  return [
    head,
    ...by((j) => j.case.amp),
    row("**all**", judged),
    "",
    `Of ${sure.length} answers given with 90 % or more, ${percent(sure.filter((j) => j.place === 0).length, sure.length)} are right. All answers, the sound amps among them:`,
    "",
    "| said with | answers | right |\n| --- | --- | --- |",
    ...calibration,
    "",
    head.replace("| |", "| kind |"),
    ...by((j) => j.case.kind),
  ].join("\n");
}
