/** What the job's screens need of the server; the app hands it in. */

import type { OldCase } from "@/core/memory/similar";
import type { PointPlace } from "@/core/shop/point-places";
import type { JobEvent } from "@/core/tape/events/event";

/** Thrown when the server answered and refused: trying again would not help. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly details?: { field?: string; line?: number; message: string }[],
  ) {
    super(message);
  }
}

export type Outgoing = Omit<JobEvent, "seq">;

/** Somebody who has the job open on another page. */
export interface Present {
  screen: string;
  who: string;
}

/** What is told while a job goes on. */
export interface LiveListener {
  lines(events: JobEvent[]): void;
  present(others: Present[]): void;
  /** Which circuit of the library the job has: told as the stream is joined, and when it is given another. */
  circuit(modelId: number | null): void;
  /** Whether the stream stands; while it does not, lines are asked for now and then. */
  joined(stands: boolean): void;
}

/** Every call rejects with Refused, or with another error when the server could not be reached. */
export interface JobPort {
  append(events: Outgoing[]): Promise<JobEvent[]>;
  since(seq: number): Promise<JobEvent[]>;
  /** Tells of lines that others log, as they are stored. @param after the last line that is here. @returns the way to stop. */
  live(after: () => number, listener: LiveListener): () => void;
  /** The server was in touch, and this is its tape: kept in the browser for the time when it is not. */
  keep(events: JobEvent[]): void;
  /** Stores a picture; gives its hash. */
  photo(file: Blob): Promise<string>;
  /** Stores a recording; gives its hash. */
  recording(file: Blob): Promise<string>;
  /** What the simulated microphone hears now, under circumstances as they are named; refused where there is none. */
  microphone(seconds: number, noted: string): Promise<Blob>;
  /** Marks a test point of the job's model on a photo, or takes its mark away; gives all marks of the model. */
  mark(place: PointPlace | { point: string }): Promise<PointPlace[]>;
  /** Gives the job a circuit file; the page is to be loaded anew after. */
  circuit(netlist: string): Promise<void>;
  readingsCsv(file: Blob): Promise<JobEvent[]>;
  /** Old jobs of the shop like this one, the likest first. */
  similar(): Promise<OldCase[]>;
}
