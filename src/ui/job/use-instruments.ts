"use client";
/** What the job's instruments show now: the meter's and the mains' last lines, and whether they are heard at all. */

import { useCallback, useEffect, useRef, useState } from "react";
import {
  LineOrder,
  readLine,
  writeLine,
  type MainsLine,
  type MeterLine,
  type SetLine,
  type TesterLine,
  type WantLine,
} from "@/core/instrument/protocol";
import { useJob } from "./job-context";

export type Heard =
  /** Nothing has come yet. */
  | "waiting"
  | "heard"
  /** It was heard and fell silent, or the way to the server broke. */
  | "lost";

export interface Instruments {
  meter?: MeterLine;
  mains?: MainsLine;
  heard: Heard;
  /** Why the meter could not be told what is wanted of it; undefined when the last request went through. */
  trouble?: string;
  /** Resolves once the bench has it, or once it is lost: then `trouble` says why. Never rejects. */
  send(line: Omit<WantLine, "n"> | SetLine): Promise<void>;
}

/** Silence after which a meter counts as lost, whatever the stream says. */
const SILENT_MS = 3000;

/**
 * @param onTester called with each new line of a leakage tester, and with nothing once it is gone.
 * @param onMeter called with each new line of the meter, once, in order; `anew` for the first after a silence.
 */
export function useInstruments(
  onMeter?: (line: MeterLine, anew: boolean) => void,
  onTester?: (line: TesterLine | undefined) => void,
): Instruments {
  const { instruments } = useJob();
  const [meter, setMeter] = useState<MeterLine>();
  const [mains, setMains] = useState<MainsLine>();
  const [heard, setHeard] = useState<Heard>("waiting");
  const [trouble, setTrouble] = useState<string>();
  const wants = useRef(0);
  const listener = useRef(onMeter);
  const tests = useRef(onTester);
  useEffect(() => {
    tests.current = onTester;
    listener.current = onMeter;
  });

  useEffect(() => {
    if (!instruments) return;
    const order = new LineOrder();
    let last = 0;
    let anew = true;
    const lost = () => setHeard((h) => (h === "waiting" ? h : "lost"));
    const take = (text: string) => {
      const read = readLine(text);
      if (!read.ok) return;
      const { line } = read;
      if (line.tell === "gone") {
        order.accepts(line);
        if (line.what === "mains") return setMains(undefined);
        if (line.what === "tester") return tests.current?.(undefined);
        anew = true;
        return lost();
      }
      if (line.tell === "mains" && order.accepts(line)) setMains(line);
      if (line.tell === "tester" && order.accepts(line)) tests.current?.(line);
      if (line.tell !== "meter" || !order.accepts(line)) return;
      if (Date.now() - last > SILENT_MS) anew = true;
      last = Date.now();
      setHeard("heard");
      setMeter(line);
      listener.current?.(line, anew);
      anew = false;
    };
    const leave = instruments.listen(take, (joined) => !joined && lost());
    const watch = setInterval(() => last > 0 && Date.now() - last > SILENT_MS && lost(), 500);
    return () => {
      clearInterval(watch);
      leave();
    };
  }, [instruments]);

  const send = useCallback(
    async (line: Omit<WantLine, "n"> | SetLine) => {
      const whole = line.tell === "want" ? { ...line, n: wants.current++ } : line;
      try {
        await instruments?.send(writeLine(whole));
        setTrouble(undefined);
      } catch (error) {
        // It is made again with the next point; the meter can always be set by hand, so the walk goes on and the screen says it.
        setTrouble((error as Error).message);
      }
    },
    [instruments],
  );
  return { meter, mains, heard, trouble, send };
}
