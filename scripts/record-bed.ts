/** npm run record-bed: solves the faults written by hand with a general SPICE and keeps the readings beside the tests. */

import { readFileSync, writeFileSync } from "node:fs";
import { HAND_FAULTS, type Faulty } from "@/core/suspects/bed/hand-faults-for-tests";
import { benchReadings, type RecordedCase } from "@/core/suspects/bed/spice-bench-for-tests";
import { uniformDraws } from "@/core/numeric/random";

const FILE = "src/core/suspects/bed/recorded.json";
const AMPS = ["wren-5", "lantern-15", "drover-40", "minor", "picture-house", "halberd-120"];
const DRAWS = Number(process.env.DRAWS ?? 4);
const SOUND = Number(process.env.SOUND ?? 20);
const SEED = Number(process.env.SEED ?? 1);
const only = process.env.AMPS?.split(",");

const clean = (amp: string): Faulty => ({ text: readFileSync(`demo/amps/${amp}.cir`, "utf8"), emission: {}, mains: 1, types: {} });
const cases: RecordedCase[] = [];
let failed = 0;
const attempt = (what: string, run: () => void) => {
  try {
    run();
  } catch (error) {
    failed++;
    console.error(`${what}: ${(error as Error).message.split("\n")[0]}`);
  }
};
for (const [k, fault] of HAND_FAULTS.entries()) {
  if (only && !only.includes(fault.amp)) continue;
  for (let draw = 0; draw < (fault.ripple ? Math.min(2, DRAWS) : DRAWS); draw++) {
    const seed = SEED * 100_000 + k * 100 + draw;
    attempt(`${fault.amp} ${fault.says}`, () => {
      const u = uniformDraws(seed)();
      const reading = benchReadings(fault.make(clean(fault.amp), u), seed, fault.ripple);
      const sound = benchReadings(clean(fault.amp), seed, fault.ripple);
      cases.push({ amp: fault.amp, says: fault.says, kind: fault.kind, refs: fault.refs, seed, reading, sound });
    });
  }
}
for (const amp of AMPS)
  for (let draw = 0; draw < SOUND && (!only || only.includes(amp)); draw++) {
    const seed = SEED * 100_000 + 90_000 + draw * 7 + AMPS.indexOf(amp) * 1000;
    attempt(`${amp} sound`, () =>
      cases.push({ amp, says: "sound", kind: "sound", refs: [], seed, reading: benchReadings(clean(amp), seed) }),
    );
  }
writeFileSync(process.env.OUT ?? FILE, `[\n${cases.map((c) => JSON.stringify(c)).join(",\n")}\n]\n`);
console.log(`${cases.length} cases kept, ${failed} failed`);
