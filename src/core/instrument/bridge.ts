/** What a bridge makes of a line that a real instrument sends, or that somebody types: a line of the protocol, or a taken reading. */

import { readingProblem } from "../tape/reading-limits";
import type { ReadingKind } from "../tape/events/words";
import { readDisplay } from "./display";
import { readLine, writeLine } from "./protocol";
import * as texts from "../texts/instrument";

export type BridgeAct =
  /** To be passed on to the screens. */
  | { do: "pass"; line: string }
  /** A finished reading of a named point: straight to the tape. */
  | { do: "log"; reading: { point: string; kind: ReadingKind; value: number; at: string } }
  | { do: "refuse"; read: string; why: string; accepted: string };

const NAMED = /^([A-Za-z][\w.]*(?::[\w.]+)?)\s+(.+)$/;

export class Bridge {
  private n = 0;

  /**
   * One line: a display ("238.1 V DC"), a display behind a point's name ("V2.p 238.1 V"), or a line of the protocol as it is.
   * @param at milliseconds since 1970. Never throws.
   */
  read(text: string, at: number): BridgeAct {
    const line = text.trim();
    const refuse = (why: string, accepted: string): BridgeAct => ({ do: "refuse", read: line.slice(0, 80), why, accepted });
    if (/^(meter|mains|gone)\b/.test(line)) {
      const read = readLine(line);
      return read.ok ? { do: "pass", line: writeLine(read.line) } : refuse(read.why, read.accepted);
    }
    const bare = readDisplay(line);
    if (bare.ok) {
      const { kind, value, over, digit, range } = bare.display;
      return {
        do: "pass",
        line: writeLine({ tell: "meter", n: this.n++, at, kind, ...(over ? { over } : { value }), digit, range, auto: true }),
      };
    }
    const [, point, rest] = NAMED.exec(line) ?? [];
    if (!point) return refuse(bare.why, bare.accepted);
    const shown = readDisplay(rest!);
    if (!shown.ok) return refuse(shown.why, texts.aPointAnd(shown.accepted));
    if (shown.display.value === undefined) return refuse(texts.overloadNoReading(), texts.pointNumberUnit());
    const problem = readingProblem(shown.display.kind, shown.display.value);
    if (problem) return refuse(problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
    return { do: "log", reading: { point, kind: shown.display.kind, value: shown.display.value, at: new Date(at).toISOString() } };
  }
}
