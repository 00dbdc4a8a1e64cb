/** A finding as the lines that it makes: itself, and the question to the owner where one has to be asked. */

import { questionAsked } from "../repair/owner-acts";
import type { EventDraft } from "../tape/events/event";
import type { Severity } from "../tape/events/words";
import type { StationId } from "../tape/stations";
import type { BriefAnswer } from "../repair/brief-allows";
import { questionFor } from "../repair/work-list";

export interface TypedFinding {
  station: StationId;
  place: string;
  text: string;
  severity: Severity;
  /** Empty where nothing is suggested: then there is nothing to ask for either. */
  action: string;
  brief: BriefAnswer;
  /** Hashes of stored photos. */
  photos: string[];
}

/** The question names the place: the same action elsewhere is another question. */
export function findingDrafts({ station, severity, brief, photos, ...typed }: TypedFinding): EventDraft[] {
  const [place, text, action] = [typed.place.trim(), typed.text.trim(), typed.action.trim()];
  const finding: EventDraft = {
    type: "finding",
    payload: { station, place, text, severity, brief, ...(action ? { action } : {}), ...(photos.length > 0 ? { photos } : {}) },
  };
  return brief === "ask" && action ? [finding, questionAsked({ what: questionFor(place, action) })] : [finding];
}
