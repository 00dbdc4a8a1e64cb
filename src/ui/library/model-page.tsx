"use client";
/** One amp model: its solved figures, its circuit file with a live solve, and what differs from another netlist. */

import { typedNumber } from "@/core/language/language";
import Link from "next/link";
import { useMemo, useRef, useState } from "react";
import { withUsualPoints } from "@/core/anatomy/usual-points";
import type { Circuit } from "@/core/circuit/circuit";
import { readCircuit } from "@/core/circuit/read";
import { complementOf, complementWords, removableTubes } from "@/core/circuit/nearest";
import { headlineOf } from "@/core/expectation/headline";
import type { ModelMemory } from "@/core/memory/shop-memory";
import type { DrawingPort } from "@/core/ports/drawing-port";
import type { School } from "@/core/drawing/strokes";
import { lateInBrowser } from "../forms/late";
import type { SolverPort } from "@/core/ports/solver-port";
import type { SolveConditions } from "@/core/expectation/modelled";
import { useSolved } from "../job/use-solved";
import { VerdictMark } from "../forms/verdict-mark";
import { CompareView } from "./compare-view";
import { ConditionsBar, type ConditionsTyped } from "./conditions-bar";
import { Tabs } from "../forms/tabs";
import { Figures } from "./figures";
import { InThisShop } from "./in-this-shop";
import type { LibraryPort, ModelHead } from "./library-port";
import type { NearModel } from "./build/ways-in";
import { StoreBar } from "./store-bar";
import { BenchSheet } from "./bench-sheet-links";
import { useDraft } from "./use-draft";
import { usePaused, useSolution } from "./use-solution";

// The layout of a circuit, what is known of its parts and the blocks come with their tab.
const BuildView = lateInBrowser(() => import("./build/build-view").then((m) => m.BuildView));
const NetlistEditor = lateInBrowser(() => import("./file/netlist-editor").then((m) => m.NetlistEditor));
const SettleView = lateInBrowser(() => import("./settle/settle-view").then((m) => m.SettleView));
const ForeignTypes = lateInBrowser(() => import("./file/foreign-types").then((m) => m.ForeignTypes));
const WaysIn = lateInBrowser(() => import("./build/ways-in").then((m) => m.WaysIn));

export interface ModelPageProps {
  /** Undefined for a model that is only being made. */
  head?: ModelHead;
  begunFrom?: ModelHead;
  /** What else it was begun with, in words. */
  begunWith?: string;
  netlist: string;
  /** All versions of this model, newest first. */
  versions: ModelHead[];
  others: ModelHead[];
  /** Under which name what is typed of a new one is kept in the browser. */
  draftName?: string;
  /** For a new one: the amps that it may be like, and the shop's mains. */
  near?: NearModel[];
  mains?: { volts: number; hertz: number };
  port: LibraryPort;
  solver: SolverPort;
  drawings: DrawingPort;
  school: School;
  /** What the shop knows of it from its jobs. */
  memory?: ModelMemory;
  /** Rejects where what is to be done with it could not be. */
  saved(head: ModelHead): void | Promise<void>;
  /** Read off the sockets of an amp that is on the bench. */
  tubes?: string;
}

export function ModelPage({
  head,
  begunFrom,
  begunWith,
  netlist,
  draftName = "new",
  versions,
  others,
  near = [],
  mains = { volts: 230, hertz: 50 },
  port,
  solver,
  drawings,
  school,
  memory,
  saved,
  tubes,
}: ModelPageProps) {
  const draft = useDraft(head ? `model-${head.id}` : begunFrom ? `from-${begunFrom.id}` : draftName, netlist);
  const { text, setText } = draft;
  // Put together on this page: then its values are typed next.
  const [begin, setBegin] = useState(false);
  const read = useMemo(() => readCircuit(text), [text]);
  const { errors } = read;
  const sound = errors.length === 0 && text.trim() !== "";
  // A file without test points is looked at with the usual ones; its own text stays as it is until they are written into it.
  const whole = useMemo(() => (sound ? withUsualPoints(text, read.circuit) : text), [sound, text, read]);
  const circuit = useMemo(() => (whole === text ? read.circuit : readCircuit(whole).circuit), [whole, text, read]);
  // What is drawn stays while a line that is being typed cannot be read.
  const held = useRef<{ text: string; circuit: Circuit }>(undefined);
  if (sound && held.current?.text !== text) held.current = { text, circuit };
  const lastSound = held.current;
  const [typed, setTyped] = useState<ConditionsTyped>({ mains: "", out: [] });
  const conditions = useMemo((): SolveConditions => {
    const mains = typedNumber(typed.mains) || circuit.mains?.volts;
    const there = new Set(removableTubes(circuit));
    return { ...(circuit.mains && mains ? { mains } : {}), without: typed.out.filter((t) => there.has(t)), set: [] };
  }, [typed, circuit]);
  const { solution, failed, stale } = useSolution(sound ? whole : undefined, conditions, solver);
  const paused = usePaused(sound ? whole : undefined);
  const bands = useSolved(solver);
  const title = head ? `${head.maker} ${head.name}` : "New model";
  const headline = solution && headlineOf(circuit, solution, conditions.mains);
  const changed = text !== netlist;
  const empty = !head && text.trim() === "";

  if (empty)
    return (
      <div className="mx-auto max-w-5xl space-y-3 px-4 py-4">
        <Link href="/library" className="soft underline underline-offset-4">
          Amp library
        </Link>
        <h1 className="text-2xl font-bold">What is on your bench?</h1>
        <WaysIn
          models={near}
          mains={mains}
          tubes={tubes}
          made={(made) => {
            setBegin(true);
            setText(made);
          }}
          loaded={setText}
        />
      </div>
    );
  return (
    <div className="mx-auto max-w-7xl space-y-3 px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-4">
        <Link href="/library" className="soft underline underline-offset-4">
          Amp library
        </Link>
        <h1 className="max-w-md truncate text-2xl font-bold">{title}</h1>
        <span className="soft">
          {head
            ? `version ${head.version}`
            : begunFrom
              ? `started from ${begunFrom.maker} ${begunFrom.name}: every part assumed`
              : begunWith
                ? `started from ${begunWith}`
                : "not stored yet"}
          {sound && head && ` · ${complementWords(complementOf(circuit))}`}
        </span>
        {head && !changed && (
          <Link href={`/jobs/new?model=${head.id}`} className="btn btn-outline ml-auto">
            New job with it
          </Link>
        )}
        {(!head || changed) && (
          <StoreBar draft={draft} stored={netlist} read={read} head={head} versions={versions} others={others} port={port} saved={saved} />
        )}
      </div>
      <p className="min-h-9 text-xl" role="status">
        {!sound ? (
          <span className="verdict-out">
            ■ {errors.length} {errors.length === 1 ? "line" : "lines"} cannot be read
          </span>
        ) : failed ? (
          <span className="verdict-out">■ {failed}</span>
        ) : headline ? (
          <span className={stale ? "soft" : ""}>
            <VerdictMark verdict={headline.verdict} size={20} /> {headline.says}
          </span>
        ) : (
          <span className="soft">Solving…</span>
        )}
      </p>
      {sound && head && (
        <ConditionsBar circuit={circuit} typed={typed} change={setTyped} solution={solution} bands={bands} cancel={() => solver.cancel()} />
      )}
      {!sound && <ForeignTypes text={text} setText={setText} />}
      {whole !== text && (
        <p className="flex flex-wrap items-center gap-3 rounded border border-base-300 px-3 py-2 text-sm">
          <span>
            The file names no test points: the {circuit.points.length} usual ones are used, in the usual order of a walk, with the pins of
            the tubes&apos; sockets.
          </span>
          <button className="btn btn-outline btn-sm min-h-9" onClick={() => setText(whole)}>
            Write them into the file
          </button>
        </p>
      )}
      <Tabs
        label="Views of the model"
        tabs={[
          {
            id: "drawing",
            name: "Drawing",
            body: lastSound ? (
              <BuildView
                draft={draft}
                read={read}
                sound={lastSound}
                netlist={paused}
                solution={solution}
                school={school}
                drawings={drawings}
                begin={begin}
                begun={() => setBegin(false)}
                typeAtOnce={!head}
                more={head && !changed && <BenchSheet id={head.id} mains={conditions.mains} />}
              />
            ) : (
              <Unread what="The drawing comes with a file" />
            ),
          },
          {
            id: "figures",
            name: "Figures",
            body: sound ? (
              <Figures
                circuit={circuit}
                solution={solution}
                solved={paused === undefined ? undefined : bands.lookupFor(paused)(conditions)}
                conditions={conditions}
                text={text}
                setText={setText}
              />
            ) : (
              <Unread what="Figures come with a file" />
            ),
          },
          {
            id: "file",
            name: "Circuit file",
            mark: changed ? "*" : undefined,
            body: (
              <NetlistEditor
                text={text}
                setText={setText}
                stored={netlist}
                read={read}
                solution={solution}
                head={head}
                solver={solver}
                conditions={conditions}
              />
            ),
          },
          {
            id: "settle",
            name: "Settle",
            keep: true,
            body: sound ? (
              <SettleView key={head?.id ?? "new"} text={whole} setText={setText} circuit={circuit} solver={solver} />
            ) : (
              <Unread what="Settling needs a circuit file" />
            ),
          },
          {
            id: "compare",
            name: "Compare",
            body: sound ? (
              <CompareView
                found={circuit}
                conditions={conditions}
                candidates={[...versions.filter((v) => v.id !== head?.id), ...others]}
                stored={changed && head ? netlist : undefined}
                port={port}
                solver={solver}
                begunFrom={begunFrom?.id}
              />
            ) : (
              <Unread what="Compare needs two circuit files" />
            ),
          },
          ...(memory ? [{ id: "shop", name: "In this shop", body: <InThisShop memory={memory} mains={conditions.mains} /> }] : []),
        ]}
        first={sound ? "drawing" : "file"}
      />
    </div>
  );
}

const Unread = ({ what }: { what: string }) => <p className="soft">{what} that can be read: see Circuit file.</p>;
