/** The stages of bringing an amp up, generated from its circuit: what is out, how far the dial is turned, what is read. */

import type { Circuit } from "../circuit/circuit";
import { anatomyOf, type BringUpAnatomy } from "./anatomy";
import { biasWatches, cathodeWatches, railWatches, socketWatches, windingWatches, type Watch } from "./watches";

export interface BringUpStage {
  id: string;
  title: string;
  /** In short lines, in order. */
  doing: string[];
  /** Why this stage is here in this amp. */
  why: string;
  /** False for what is done with the plug out. */
  powered: boolean;
  /** Tubes that are out, by envelope. */
  without: string[];
  /** Parts of the wall's volts that the dial is turned to. */
  steps: number[];
  watch: Watch[];
  /** Stages that must be passed before this one. */
  after: string[];
}

export interface StageOptions {
  /** One output tube after another, as after a blown fuse. */
  oneAtATime?: boolean;
}

const SLOW = [0.25, 0.5, 0.75, 1];
/** A tube rectifier does nothing before its heater has most of its volts. */
const TUBE_RECTIFIER = [0.5, 0.7, 0.85, 1];

export function stagesOf(circuit: Circuit, options: StageOptions = {}): BringUpStage[] {
  const a = anatomyOf(circuit);
  const stages = a.lineConnected || a.string.length > 0 ? stringStages(circuit, a) : transformerStages(circuit, a, options);
  // Each stage stands on the ones before it.
  return stages.map((s, i) => ({ ...s, after: stages.slice(0, i).map((b) => b.id) }));
}

type Draft = Omit<BringUpStage, "after">;

function transformerStages(circuit: Circuit, a: BringUpAnatomy, { oneAtATime = false }: StageOptions): Draft[] {
  const every = [...a.rectifierTubes, ...a.small, ...a.output];
  const out: Draft[] = [];
  const solid = a.high.every((e) => !e.rectifierTube);
  const rails = railWatches(circuit, a);
  const steps = a.rectifierTubes.length > 0 ? TUBE_RECTIFIER : SLOW;
  out.push({
    id: "no-tubes",
    title: solid ? "No tubes: the rails come up at once" : "No tubes: windings only",
    doing: [
      "Pull every tube, note each socket",
      solid
        ? "The solid-state rectifier charges the rails unloaded: read them at each turn of the dial, against the capacitors' ratings"
        : "Nothing rectifies: the current is the transformer's own. Read each winding at full volts, to chassis or centre tap",
    ],
    why: solid
      ? a.doubler
        ? "a doubler: the unloaded rail reaches twice the winding's peak"
        : "solid-state rectifier: no tube delays the rails"
      : "a shorted transformer shows here, before anything else can burn",
    powered: true,
    without: every,
    steps: SLOW,
    watch: [...windingWatches(circuit, a), ...(solid ? [...biasWatches(circuit, a), ...rails] : [])],
  });
  if (!solid)
    out.push({
      id: "rectifier",
      title: "Rectifier only: rails unloaded",
      doing: [
        `Put in ${a.rectifierTubes.join(" and ")} only`,
        "Turn slowly; the rails rise above what they have under load: against the capacitors' ratings",
      ],
      why: "a tube rectifier does little until its heater is near full volts",
      powered: true,
      without: [...a.small, ...a.output],
      steps,
      watch: [...biasWatches(circuit, a), ...rails],
    });
  if (a.fixedBias)
    out.push({
      id: "bias",
      title: "Bias at each output socket",
      doing: ["Output tubes still out, full volts", "Read the grid pin of every output socket, and turn the adjuster from end to end once"],
      why: "without bias an output tube runs away in seconds",
      powered: true,
      without: [...a.small, ...a.output],
      steps: [1],
      watch: socketWatches(circuit, a, true),
    });
  out.push({
    id: "load",
    title: "Load connected",
    doing: ["Power off. Speaker or dummy load on the right tap; measure it through its own lead"],
    why: "an output transformer without load can flash over",
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "small",
    title: "Small tubes",
    doing: [
      `Put in ${a.small.join(", ") || "none"}; output tubes still out`,
      ...(a.fixedBias ? [] : ["Read the grid pin of each output socket: anything above zero comes through a coupling capacitor"]),
    ],
    why: a.fixedBias ? "the rails begin to come down" : "coupling capacitors get their full volts: a leak shows at the sockets",
    powered: true,
    without: a.output,
    steps,
    watch: [...(a.fixedBias ? [] : socketWatches(circuit, a, false)), ...rails],
  });
  const cathodes = cathodeWatches(circuit, a);
  if (oneAtATime && a.output.length > 1)
    a.output.forEach((tube, i) =>
      out.push({
        id: `output:${tube}`,
        title: `Output tube ${tube} in`,
        doing: [
          `Add ${tube}; ${i === 0 ? "the others stay out" : `${a.output.slice(0, i).join(", ")} stay in`}`,
          "Stop at the first glow of a plate or jump of the current",
        ],
        why: "a fuse has blown: one tube at a time, so that the one that does it is seen",
        powered: true,
        without: a.output.slice(i + 1),
        steps,
        watch: [...cathodes.filter((w) => w.label.startsWith(tube)), ...rails.slice(0, 1)],
      }),
    );
  else
    out.push({
      id: "output",
      title: a.output.length > 1 ? "Output tubes" : "Output tube",
      doing: [`Put in ${a.output.join(", ")}`, "Watch the plates from the side; off at the first red"],
      why: "the full load",
      powered: true,
      without: [],
      steps,
      watch: [...cathodes, ...rails.slice(0, 1)],
    });
  out.push(...endStages(circuit, a, cathodes, rails));
  return out;
}

function stringStages(circuit: Circuit, a: BringUpAnatomy): Draft[] {
  const rails = railWatches(circuit, a);
  const cathodes = cathodeWatches(circuit, a);
  const out: Draft[] = [];
  if (a.lineConnected)
    out.push({
      id: "isolation",
      title: "Isolation transformer",
      doing: [
        "Set behind an isolation transformer, the variable transformer before it",
        "Measure chassis to earth with the plug in both ways: it must float",
      ],
      why: "one side of the line is the chassis: an earthed lead on it is a short, a hand on it a shock",
      powered: false,
      without: [],
      steps: [],
      watch: [],
    });
  out.push({
    id: "string",
    title: "Heater string, cold",
    doing: ["Ohms across the string with the switch on and the plug out", "Open? Read across single heaters at Cold checks"],
    why: `series string ${a.string.join(", ")}: one open heater puts all of them out, so no tube is pulled here`,
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "load",
    title: "Load connected",
    doing: ["Speaker or dummy load on; measure it through its own lead"],
    why: "an output transformer without load can flash over",
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "output",
    title: "All tubes in, dial up slowly",
    doing: [
      "Every tube stays in: pulling one opens the string",
      "Half volts first: the heaters glow evenly, none flares",
      "Read the reservoir as the rectifier warms",
    ],
    why: "series string: there is no stage without tubes",
    powered: true,
    without: [],
    steps: TUBE_RECTIFIER,
    watch: [...rails, ...cathodes],
  });
  out.push(...endStages(circuit, a, cathodes, rails));
  return out;
}

function endStages(circuit: Circuit, a: BringUpAnatomy, cathodes: Watch[], rails: Watch[]): Draft[] {
  return [
    {
      id: "full",
      title: "Full mains, no limiter",
      doing: ["Take the lamp out, straight to the wall", "Current once more, then the walk"],
      why: "only now do the printed voltages mean anything",
      powered: true,
      without: [],
      steps: [1],
      watch: [...biasWatches(circuit, a), ...rails.slice(0, 1), ...cathodes],
    },
    {
      id: "settle",
      title: "Settling run",
      doing: ["Leave it on, idle; read bias and rail every few minutes", "It is through when the readings no longer drift"],
      why: "what changes as it warms shows here: bias that sags, a tube that runs away",
      powered: true,
      without: [],
      steps: [1],
      watch: [...biasWatches(circuit, a), ...rails.slice(0, 1), ...cathodes],
    },
  ].map((s) => ({ ...s, watch: s.watch.map((w) => ({ ...w, must: s.id === "settle" ? false : w.must })) }));
}

export interface StageFit {
  /** Tubes that this stage wants in and that are out, and the other way round. */
  wantedIn: string[];
  wantedOut: string[];
}

/** Whether the tubes are as a stage wants them. @param without tubes that are out by the tape. */
export function stageFit(circuit: Circuit, stage: Pick<BringUpStage, "without">, without: readonly string[]): StageFit {
  const a = anatomyOf(circuit);
  const every = [...a.rectifierTubes, ...a.small, ...a.output];
  const out = new Set(without.map((t) => t.toUpperCase()));
  return {
    wantedIn: every.filter((t) => out.has(t) && !stage.without.includes(t)),
    wantedOut: stage.without.filter((t) => !out.has(t)),
  };
}
