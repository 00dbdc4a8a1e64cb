/** A digest of a job that left nothing, and what tests put into it. */

import type { JobDigest } from "./digest";
import type { RememberedJob } from "./shop-memory";

const EMPTY: JobDigest = {
  complaint: "",
  kinds: [],
  signs: {},
  cured: false,
  cures: [],
  proved: false,
  replaced: [],
  had: {},
  normal: {},
  minutes: {},
  worked: 0,
  booked: { bills: [], payments: [] },
};

export const remembered = (job: number, more: Partial<JobDigest>, sameModel = true): RememberedJob => ({
  job,
  sameModel,
  digest: { ...EMPTY, ...more },
});
