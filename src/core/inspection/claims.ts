/** What earlier technicians are said to have done, held against the dates on the parts and what the eye has found. */

import { readDateCode } from "./dating";
import { words } from "../language/language";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/inspection";

export interface ClaimCheck {
  claim: string;
  year?: number;
  /** What the dates and findings say of it. */
  says: "confirmed" | "contradicted" | "no evidence" | "no date codes";
  evidence: string[];
  /** What would settle it. */
  look: string;
}

/** Parts that words of a claim are about, with the words of a place that name them. */
const ABOUT: { claim: RegExp; place: RegExp; what: string }[] = [
  {
    claim: /recap|capacitor|electrolytic|\bcaps?\b|\bcan\b/i,
    place: /capacitor|electrolytic|\bcaps?\b|\bcan\b|\bC\d+/i,
    what: texts.theCapacitors,
  },
  { claim: /tube|valve|output pair|quad/i, place: /tube|valve|\bV\d+/i, what: texts.theTubes },
  { claim: /speaker|recone|cone/i, place: /speaker|cone/i, what: texts.theSpeaker },
  { claim: /transformer|rewound/i, place: /transformer|\bXT\d|winding/i, what: texts.theTransformers },
  { claim: /\bpots?\b|potentiometer|control/i, place: /\bpots?\b|potentiometer|control|\bP\d/i, what: texts.theControls },
  { claim: /cord|lead|plug|fuse/i, place: /cord|lead|plug|fuse/i, what: texts.cordFuse },
];
const FRESH = /new solder|fresh solder|replaced|modern|new part|renewed|heat.?shrink/i;
const OLD = /original|factory|untouched|never been|sealed/i;

/** Each claim with what stands for and against it. */
export function checkClaims(state: Pick<JobState, "claims" | "dateCodes" | "findings">): ClaimCheck[] {
  return state.claims.map(({ text, year }) => {
    const about = ABOUT.find((a) => a.claim.test(text));
    const evidence: string[] = [];
    let [speaksFor, against] = [0, 0];
    for (const { place, code } of state.dateCodes) {
      if (about && !about.place.test(place)) continue;
      const dated = readDateCode(place, code);
      if ("why" in dated || year === undefined) continue;
      if (dated.years.every((y) => y > year)) {
        evidence.push(texts.datedAfterWorkSaid(place, dated.years.join(" or ")));
        against++;
      } else if (dated.years.some((y) => y <= year && y >= year - 3)) {
        evidence.push(texts.datedFits(place, dated.years.filter((y) => y <= year).at(-1)));
        speaksFor++;
      } else if (about) {
        evidence.push(texts.datedLongBeforeSo(place, dated.years.join(" or ")));
        against++;
      }
    }
    for (const f of state.findings) {
      if (about && !about.place.test(`${f.place} ${f.text}`)) continue;
      if (FRESH.test(f.text)) {
        evidence.push(`${f.place}: ${f.text}`);
        speaksFor++;
      } else if (OLD.test(f.text)) {
        evidence.push(`${f.place}: ${f.text}`);
        against++;
      }
    }
    const says =
      against > 0 && against >= speaksFor
        ? "contradicted"
        : speaksFor > 0
          ? "confirmed"
          : year === undefined
            ? "no date codes"
            : "no evidence";
    return {
      claim: text,
      year,
      says,
      evidence,
      look: `${about ? texts.dateCodesSolder(words(about.what)) : texts.newSolderNewParts()}${year === undefined ? texts.askWhichYearWas() : texts.against(year)}`,
    };
  });
}
