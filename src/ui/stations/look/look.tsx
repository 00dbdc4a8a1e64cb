"use client";
/** Look: what the eye finds before anything is measured, from a list made for this amp. */

import { Findings } from "../findings";
import { TakeApart } from "../take-apart";
import { Claims } from "./claims";
import { Inspection } from "./inspection";
import { WorkList } from "./work-list";

export function Look() {
  return (
    <div className="max-w-5xl">
      <Inspection />
      <Claims />
      <WorkList />
      <Findings station="look" />
      <TakeApart />
    </div>
  );
}
