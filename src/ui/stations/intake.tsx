"use client";
/** Intake: the complaint in the owner's words, the brief, the amp, what came with it, and the complaint reproduced. */

import { Complaint, Brief } from "./intake-brief";
import { AmpIdentity, DateCodes } from "./intake-amp";
import { ArrivalList, Claims, Reproduce } from "./intake-arrival";

export function Intake() {
  return (
    <div className="max-w-4xl">
      <Complaint />
      <Reproduce run="intake" />
      <Brief />
      <AmpIdentity />
      <DateCodes />
      <Claims />
      <ArrivalList />
    </div>
  );
}
