/** Who has which job open, told between the processes of one shop through their database. */

import { randomUUID } from "node:crypto";
import { parseJson } from "./json";
import { live, type Present } from "./live";

export const PRESENCE_CHANNEL = "scutum_present";

/** Each process says so often that it is there, with all that is open at it. */
const BEAT_MS = 5000;
/** Who was not heard for so long is gone: killed, or cut off. */
const GONE_MS = 3 * BEAT_MS;
/** A message of the database holds 8000 bytes; so many pages of one job fit into it with room to spare. */
const MOST_PAGES = 60;

interface Told {
  process: string;
  job?: number;
  present?: Present[];
}

export class Presence {
  private readonly me = randomUUID();
  private readonly heard = new Map<string, number>();
  private timer?: NodeJS.Timeout;
  private failing = false;

  /** @param notify sends a text to every process of the shop, this one included. */
  constructor(private readonly notify: (channel: string, text: string) => Promise<unknown>) {}

  begin(): void {
    live().onPresence = (jobId) => void this.say({ process: this.me, job: jobId, present: live().presentHere(jobId).slice(0, MOST_PAGES) });
    this.timer = setInterval(() => this.beat(), BEAT_MS).unref();
    this.beat();
  }

  /** Takes what a process has said. What cannot be read is told in the log and left. */
  hear(text: string): void {
    let told: Told;
    try {
      told = parseJson(text) as Told;
    } catch (error) {
      return console.error(`scutum: another process said what cannot be read: ${(error as Error).message}`);
    }
    if (told.process === this.me) return;
    this.heard.set(told.process, Date.now());
    if (told.job !== undefined) live().hearElsewhere(told.process, told.job, told.present ?? []);
  }

  async end(): Promise<void> {
    clearInterval(this.timer);
    live().onPresence = undefined;
    for (const process of this.heard.keys()) live().forgetElsewhere(process);
  }

  private beat(): void {
    void this.say({ process: this.me });
    for (const job of live().jobsOpenHere()) live().onPresence?.(job);
    for (const [process, at] of this.heard)
      if (Date.now() - at > GONE_MS) {
        this.heard.delete(process);
        live().forgetElsewhere(process);
      }
  }

  private async say(told: Told): Promise<void> {
    try {
      await this.notify(PRESENCE_CHANNEL, JSON.stringify(told));
      this.failing = false;
    } catch (error) {
      // The next beat says it again; the log is told once.
      if (!this.failing) console.error(`scutum: other processes were not told who is here: ${(error as Error).message}`);
      this.failing = true;
    }
  }
}
