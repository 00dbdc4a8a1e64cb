/** The recorded faults of one amp judged by the ranking, against how many of them it has to name. */

import { readFileSync } from "node:fs";
import { demoAmp } from "../../solver/circuits-for-tests";
import { FaultTable } from "../table";
import { judge, shows } from "./judge-for-tests";
import type { RecordedCase } from "./spice-bench-for-tests";

export const recorded = JSON.parse(readFileSync("src/core/suspects/bed/recorded.json", "utf8")) as RecordedCase[];

/** Cases of an amp that are judged: sound ones, and faults that show. */
export const casesOf = (amp: string) => recorded.filter((r) => r.amp === amp && (r.refs.length === 0 || shows(r)));

export interface Least {
  /** Of the faults: the true part first, and among the first three, at least so often. */
  first: number;
  three: number;
  /** Of the sound amps: called sound at least so often. */
  sound: number;
  /** Said with 90 % or more: at least so often, and wrong at most so often. */
  sure: number;
  sureAndWrong: number;
}

/** One by one each amp may lose a case; together they may lose no more than the bounds of bed.test.ts leave. */
export const LEAST: Record<string, Least> = {
  "wren-5": { first: 62, three: 69, sound: 20, sure: 57, sureAndWrong: 2 },
  "lantern-15": { first: 42, three: 45, sound: 20, sure: 37, sureAndWrong: 1 },
  "drover-40": { first: 40, three: 44, sound: 20, sure: 36, sureAndWrong: 3 },
  minor: { first: 30, three: 35, sound: 18, sure: 27, sureAndWrong: 1 },
  "picture-house": { first: 34, three: 40, sound: 20, sure: 30, sureAndWrong: 1 },
  "halberd-120": { first: 42, three: 46, sound: 19, sure: 33, sureAndWrong: 2 },
};

/** Registers the tests of an amp's file. */
export function testBedOf(amp: string): void {
  const least = LEAST[amp]!;
  const table = new FaultTable(demoAmp(amp));
  const judged = casesOf(amp).map((c) => judge(table, c));
  const faulty = judged.filter((j) => j.case.refs.length > 0);
  const sound = judged.filter((j) => j.case.refs.length === 0);
  const sure = judged.filter((j) => j.probability >= 0.9);
  const many = (list: typeof judged, good: (j: (typeof judged)[number]) => boolean) => list.filter(good).length;

  test(`${amp}: the true part comes first ${least.first} times of ${faulty.length}, among three ${least.three} times`, () => {
    expect(many(faulty, (j) => j.place === 0)).toBeGreaterThanOrEqual(least.first);
    expect(many(faulty, (j) => j.place >= 0 && j.place < 3)).toBeGreaterThanOrEqual(least.three);
  });

  test(`${amp}: sound ones are called sound ${least.sound} times of ${sound.length}`, () => {
    expect(many(sound, (j) => j.place === 0)).toBeGreaterThanOrEqual(least.sound);
  });

  test(`${amp}: sure ${least.sure} times and more, wrong then ${least.sureAndWrong} times at most`, () => {
    expect(sure.length).toBeGreaterThanOrEqual(least.sure);
    expect(many(sure, (j) => j.place !== 0)).toBeLessThanOrEqual(least.sureAndWrong);
  });
}
