/** The Lamplight Picture House's stereo amplifier: one tired output tube; the other channel is the yardstick. Opens Friday. */

import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

export function lamplight(d: Days): Days {
  // True fault: V6 has lost more than half of its emission.
  const amp = new SimulatedAmp("picture-house", 59, ["V6=weak:0.25"]);
  d.day(2, "09:00")
    .log(0, {
      type: "job-opened",
      payload: { owner: "Lamplight Picture House", amp: "Picture House", contact: "the box office, after four" },
    })
    .log(2, {
      type: "complaint",
      payload: {
        words: "The right side has been getting quieter since spring, and rough in the loud scenes. We open Friday.",
        when: ["at volume"],
        use: "Six shows a week",
      },
    })
    .log(2, {
      type: "brief",
      payload: { order: ["reliability", "cost", "tone", "originality"], dueDate: d.promised(9), spendingLimit: 250 },
    })
    .log(1, { type: "identity", payload: { maker: "Pell", model: "Picture House", revision: "2", serial: "PH-021" } });
  const warm = { mains: 228, warmMinutes: 15, controls: "volume at zero" };
  return d
    .day(1, "10:30")
    .mains(228)
    .on(3, "variable")
    .walk(amp, ["BIAS", "B1", "B3", "B4"], warm)
    .walk(amp, ["V4.g", "V5.g", "V4.k", "V5.k", "V4.p", "V5.p", "V4.s", "V5.s", "V2A.p", "V2B.p", "V2.k", "V1A.p", "V1A.k"], warm)
    .walk(amp, ["V6.g", "V7.g", "V6.k", "V7.k", "V6.p", "V7.p", "V6.s", "V7.s"], warm)
    .note(1, "Left channel all within a few percent; V6 passes a third of what V7 does")
    .off(2);
}
