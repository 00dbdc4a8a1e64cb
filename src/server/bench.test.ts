/** What the simulated bench takes from a job's tape. */

import { readFileSync } from "node:fs";
import type { Change } from "@/core/tape/events/work-events";
import { foldJob } from "@/core/tape/fold";
import { benchRecord, faultsLeft, putOnBench, standing, wallOf } from "./bench";
import { freshShop } from "./fresh-shop-for-tests";
import { shopHistory } from "./history";
import { addModel } from "./models";
import { append, openJob } from "./tape";
import { at, tape } from "@/core/tape/tape-for-tests";

const change = (position: string, outcome?: Change["outcome"]) =>
  ({ position, kind: outcome ? "experiment" : "replacement", newPart: "new", reversible: true, outcome }) as never;

test("a part that was replaced took its fault with it; one that was put back did not", () => {
  const faults = [{ set: "R9=open" }, { set: "C6=leak:14M", afterMinutes: 10 }, { set: "V2.g=open" }, { set: "TAP=1.09" }];
  expect(faultsLeft(faults, { changes: [], boardsCleaned: [] })).toEqual(faults);
  expect(faultsLeft(faults, { changes: [change("r9"), change("C6", "reverted")], boardsCleaned: [] })).toEqual(faults.slice(1));
  expect(faultsLeft(faults, { changes: [change("V2")], boardsCleaned: [] }).map((f) => f.set)).not.toContain("V2.g=open");
  // C60 is another part than C6, and R9 none of R90's.
  expect(faultsLeft(faults, { changes: [change("C60"), change("R90")], boardsCleaned: [] })).toEqual(faults);
});

test("a fault that only sounds leaves with the part it is named for; what is tried in the amp is tried on the bench", () => {
  const howl = { set: "", part: "reverb return lead", sound: { kind: "squeal", level: -14 } } as const;
  expect(faultsLeft([howl], { changes: [change("R9")], boardsCleaned: [] })).toEqual([howl]);
  expect(faultsLeft([howl], { changes: [change("reverb return lead")], boardsCleaned: [] })).toEqual([]);
  const trial = (outcome: "open" | "reverted") =>
    tape([
      0,
      { type: "change", payload: { position: "R9", kind: "experiment", newPart: "220k", reversible: true, outcome, set: ["R9=220k"] } },
    ]);
  expect(standing(foldJob(trial("open")), at(60)).set).toEqual(["R9=220k"]);
  expect(standing(foldJob(trial("reverted")), at(60)).set).toEqual([]);
});

test("how it stands: on since when, without which tubes, behind a lamp", () => {
  const on = tape([0, { type: "power", payload: { state: "on", plug: "in", through: "lamp", without: ["V4", "V5"] } }]);
  expect(standing(foldJob(on), at(600))).toMatchObject({ on: true, seconds: 600, warmMinutes: 10, without: ["V4", "V5"], lamp: true });
  const off = tape([0, { type: "power", payload: { state: "off", plug: "out" } }]);
  expect(standing(foldJob(off), at(30))).toMatchObject({ on: false, seconds: 30, warmMinutes: 0, without: [], lamp: false });
  expect(standing(foldJob([]), at(30))).toMatchObject({ on: false, seconds: Infinity });
});

test("what the shop has replaced in other amps of a model: undone lines and experiments do not count", async () => {
  const shop = await freshShop();
  try {
    const model = await addModel(shop, readFileSync("demo/amps/wren-5.cir", "utf8"));
    const job = async () =>
      (await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", modelId: model.id, who: "J.M." }))).id;
    const [here, other, third] = [await job(), await job(), await job()];
    const fit = (position: string, kind: "replacement" | "experiment") =>
      ({ type: "change", who: "J.M.", payload: { position, kind, newPart: "new", reversible: true } }) as const;
    await append(shop, other, [fit("C6", "replacement"), fit("c6 ", "replacement"), fit("R8", "replacement"), fit("C7", "experiment")]);
    await append(shop, other, [{ type: "undo", who: "J.M.", payload: {}, supersedes: 3 }]);
    // An undo that was itself undone: the part is in after all.
    await append(shop, third, [fit("C6", "replacement")]);
    await append(shop, third, [{ type: "undo", who: "J.M.", payload: {}, supersedes: 1 }]);
    await append(shop, third, [{ type: "undo", who: "J.M.", payload: {}, supersedes: 2 }]);
    await append(shop, here, [fit("R1", "replacement")]);
    expect(await shopHistory(shop, here, model, undefined)).toMatchObject({ jobs: 2, replaced: { C6: 2 } });
  } finally {
    await shop.close();
  }
});

test("the wall is what the tape says, unless that was read behind a lamp or at a turned dial", () => {
  expect(wallOf(228, 230)).toBe(228);
  expect(wallOf(145, 230)).toBe(230);
  expect(wallOf(undefined, 117)).toBe(117);
});

test("the amp on the bench is kept with its job and goes with it", async () => {
  const shop = await freshShop();
  try {
    const { id } = await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", who: "J.M." }));
    expect(await benchRecord(shop, id)).toBeUndefined();
    await putOnBench(shop, id, { seed: 3, faults: [{ set: "R9=open", when: "panel on" }] });
    await putOnBench(shop, id, { seed: 4, faults: [{ set: "R8=open" }] });
    expect(await benchRecord(shop, id)).toEqual({ seed: 4, faults: [{ set: "R8=open" }] });
    await shop.query("delete from jobs where id = $1", [id]);
    expect(await benchRecord(shop, id)).toBeUndefined();
  } finally {
    await shop.close();
  }
});
