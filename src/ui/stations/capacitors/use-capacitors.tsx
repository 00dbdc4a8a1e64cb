"use client";
/** The capacitors of the amp for all tabs of Work that are about them: what each is, bears and measured, and what is to be done with it. */

import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import { gridLeakOf } from "@/core/anatomy/couplings";
import { knownCapacitors, type KnownCapacitor } from "@/core/capacitor/known";
import type { CapacitorStress } from "@/core/capacitor/stress";
import { judgeCapacitor, judgeTests, type CapacitorJudged, type LiftedLeg } from "@/core/capacitor/verdict";
import type { Circuit } from "@/core/circuit/circuit";
import { wallVolts } from "@/core/circuit/mains-connection";
import { briefAllows, type BriefAnswer } from "@/core/repair/brief-allows";
import type { BadName } from "@/core/shop/bad-names";
import type { StockPart } from "@/core/shop/stock-parts";
import { latestReading } from "@/core/tape/fold";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";

export interface CapacitorRow {
  c: KnownCapacitor;
  stress?: CapacitorStress;
  tests: ReturnType<typeof judgeTests>;
  judged: CapacitorJudged;
  /** What the eye has found at it and nobody has closed. */
  seen?: string;
  brief: { brief: BriefAnswer; why: string };
}

export interface CapacitorsValue {
  /** None in a job without a circuit: then they are those that the tape names, and nothing is known of what they bear. */
  circuit?: Circuit;
  netlist?: string;
  /** Volts at the plug that everything is solved at. */
  mains: number;
  year: number;
  rows: CapacitorRow[];
  stresses: ReadonlyMap<string, CapacitorStress>;
  /** Why what they bear is not there (yet). */
  failed: string;
  solving: boolean;
  /** Part that is looked at in the table. */
  chosen?: string;
  choose(part: string | undefined): void;
  /** Taken into the kit against the verdict, or left out of it. */
  swapped: ReadonlySet<string>;
  swap(part: string): void;
  stock: StockPart[];
  names: BadName[];
  /** Does something to the shop's stock or names and shows what came of it. @returns why it could not be done. */
  act(work: () => Promise<Shop>): Promise<string | undefined>;
  shopFailed: string;
}

const CapacitorsContext = createContext<CapacitorsValue | undefined>(undefined);

export function useCapacitors(): CapacitorsValue {
  const value = useContext(CapacitorsContext);
  if (!value) throw new Error("used outside the capacitors of an amp");
  return value;
}

/** For what needs the circuit: substitutes, the kit. */
export function useDrawnCapacitors(): CapacitorsValue & { circuit: Circuit; netlist: string } {
  const { circuit, netlist, ...value } = useCapacitors();
  if (!circuit || netlist === undefined) throw new Error("used in a job without a circuit");
  return { ...value, circuit, netlist };
}

/** What came back from the shop. */
type Shop = { stock: StockPart[] } | { names: BadName[] };

/** What the eye found at a part and nobody has closed. */
function seenAt(findings: readonly { place: string; text: string; severity: string; closed?: string }[], name: string): string | undefined {
  return findings.find(
    (f) => f.closed === undefined && f.severity !== "note" && new Set(f.place.toUpperCase().match(/[A-Z]+\d+[A-D]?/g)).has(name),
  )?.text;
}

interface CapacitorsProviderProps {
  circuit?: Circuit;
  netlist?: string;
  children: ReactNode;
}

export function CapacitorsProvider({ circuit, netlist, children }: CapacitorsProviderProps) {
  const { view, settings, capacitors, parts, badNames, tape } = useJob();
  const { state, rows: walked } = view;
  const mains = state.mainsVolts ?? wallVolts(circuit, settings.mainsVolts);
  const [chosen, choose] = useState<string>();
  const [swapped, setSwapped] = useState<ReadonlySet<string>>(new Set());
  const [stock, setStock] = useState<StockPart[]>([]);
  const [names, setNames] = useState<BadName[]>(badNames ?? []);
  const [shopFailed, setShopFailed] = useState("");
  const year = useMemo(() => new Date().getFullYear(), []);
  const key = capacitors && netlist !== undefined ? JSON.stringify([netlist, mains]) : undefined;
  const { answer, progress, failed } = useAnswer(key, () => capacitors!.stresses(netlist!, mains));
  const stresses = useMemo(() => new Map((answer ?? []).map((s) => [s.part, s])), [answer]);

  const act = useCallback(async (work: () => Promise<Shop>) => {
    try {
      const done = await work();
      if ("stock" in done) setStock(done.stock);
      else setNames(done.names);
      setShopFailed("");
      return undefined;
    } catch (error) {
      return (error as Error).message;
    }
  }, []);
  const taken = state.changes.filter((c) => c.stock !== undefined && c.seq < tape.pendingFrom).length;
  useEffect(() => {
    if (!parts) return;
    const load = async () => {
      try {
        setStock(await parts.list());
        setNames(await parts.names());
      } catch (error) {
        setShopFailed((error as Error).message);
      }
    };
    void load();
    // What a line has taken out of a drawer is gone when it is stored.
  }, [parts, taken]);

  const rows = useMemo(() => {
    const voltsAt = (node: string) => walked.find((r) => r.point.node === node)?.expected?.volts ?? 0;
    return knownCapacitors(circuit, state, names).map((c): CapacitorRow => {
      const reading = latestReading(state, c.name, "leak");
      const source = c.element ? Math.max(0, ...c.element.nodes.map(voltsAt)) : 0;
      const fresh = reading && reading.seq > (c.replaced ?? 0) && source > 0;
      const grid = circuit && c.element && gridLeakOf(circuit, c.element)?.ohms;
      const lifted: LiftedLeg | undefined = fresh ? { read: reading.value, source, ...(grid ? { gridLeakOhms: grid } : {}) } : undefined;
      const stress = stresses.get(c.name);
      const seen = c.replaced === undefined ? seenAt(state.findings, c.name) : undefined;
      const judged = judgeCapacitor(c, stress, { school: settings.capacitorSchool, today: year, lifted, seen });
      return {
        c,
        stress,
        tests: judgeTests(c, lifted),
        judged,
        ...(seen ? { seen } : {}),
        brief: briefAllows(state.brief, `replace ${c.name}`, `${c.name} ${c.role.does}`, judged.danger ? "danger" : "fault"),
      };
    });
  }, [circuit, state, names, stresses, settings.capacitorSchool, year, walked]);

  const value: CapacitorsValue = {
    circuit,
    netlist,
    mains,
    year,
    rows,
    stresses,
    failed,
    solving: progress !== undefined,
    chosen,
    choose,
    swapped,
    swap: (part) =>
      setSwapped((s) => {
        const next = new Set(s);
        if (!next.delete(part)) next.add(part);
        return next;
      }),
    stock,
    names,
    act,
    shopFailed,
  };
  return <CapacitorsContext.Provider value={value}>{children}</CapacitorsContext.Provider>;
}

/** The capacitors of the kit: those to replace, as somebody has changed it by hand. */
export const inKit = ({ rows, swapped }: Pick<CapacitorsValue, "rows" | "swapped">): CapacitorRow[] =>
  rows.filter((r) => (r.judged.verdict === "replace") !== swapped.has(r.c.name) && r.c.replaced === undefined);
