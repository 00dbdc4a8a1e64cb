/** A small run of `npm run soak`: the shop is killed once in each of the moments that can lose something. */

import { expect, test } from "@playwright/test";
import { MOMENTS, Soak } from "../soak/soak";

test("killed while it logs, takes photos, imports, is backed up, migrates and starts for the first time: nothing acknowledged is lost", async () => {
  test.setTimeout(600_000);
  const soak = new Soak(3);
  try {
    for (const moment of MOMENTS) await soak.round(moment);
    expect(soak.told.failures).toEqual([]);
    expect(soak.told.acknowledged.lines).toBeGreaterThan(0);
    expect(soak.told.starts.length).toBeGreaterThan(4);
  } finally {
    soak.end();
  }
});
