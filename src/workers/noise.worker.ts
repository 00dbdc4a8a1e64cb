/** Recordings and noise off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { readCircuit } from "@/core/circuit/read";
import type { Circuit } from "@/core/circuit/circuit";
import { curveOf } from "@/core/noise/curve";
import type { JobNoise } from "@/core/noise/job-noise";
import { NoiseTable } from "@/core/noise/noise-table";
import { responseOf, type Response } from "@/core/noise/response";
import { soundsOf } from "@/core/noise/sounds";
import type { Analysed, NoiseAnswer, ReadToo } from "@/core/noise/sounds-port";
import { decodeWav, HEAD_BYTES, readWavHead } from "@/core/noise/wav";
import { usualGrounds } from "@/core/noise/usual-grounds";
import type { GroundMapDrawn } from "@/core/job/events/noise";
import { rank } from "@/core/suspects/rank";
import { FaultTable } from "@/core/suspects/table";
import { together } from "@/core/suspects/together";

let noise: { key: string; table: NoiseTable } | undefined;
let faults: { netlist: string; table: FaultTable } | undefined;

function circuitOf(netlist: string): Circuit {
  const { circuit, errors } = readCircuit(netlist);
  if (errors.length > 0)
    throw new Error(`line ${errors[0]!.line} cannot be read: found ${errors[0]!.found}; expected ${errors[0]!.expected}`);
  return circuit;
}

const api = {
  async analyse(file: Blob, mains: number | undefined, progress?: (part: number) => void): Promise<Analysed> {
    // Only what is looked at is read: a file of gigabytes never fills the memory.
    const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
    const shape = readWavHead(head, file.size);
    progress?.(0.05);
    const recording = decodeWav(shape, new Uint8Array(await file.slice(shape.from, shape.from + shape.bytes).arrayBuffer()));
    progress?.(0.15);
    const { spectrum, ...sounds } = soundsOf(recording, mains, (part) => progress?.(0.15 + 0.85 * part));
    return { ...sounds, curve: curveOf(spectrum) };
  },
  enters(
    netlist: string,
    mains: number,
    speaker: string | undefined,
    job: JobNoise,
    read: ReadToo | undefined,
    progress?: (part: number) => void,
  ): NoiseAnswer {
    const key = JSON.stringify([netlist, mains, speaker]);
    if (noise?.key !== key) noise = { key, table: new NoiseTable(circuitOf(netlist), { mains, speaker, progress }) };
    const { table } = noise;
    const ranking = read && read.evidence.length > 0 ? rank(faultsOf(netlist, read, progress), read.evidence, read.history) : undefined;
    const joint = together(table, [...job.answers, ...table.answersOf(job.rails)], ranking);
    return {
      ...joint,
      chain: table.chain,
      soundRipple: Object.fromEntries(table.soundRipple),
      refused: table.refused,
      how: Object.fromEntries(table.tests.map((t) => [t.id, { how: t.how, caution: t.caution, inside: t.inside }])),
    };
  },
  response(netlist: string, mains: number | undefined, changes: string[]): Response {
    return responseOf(circuitOf(netlist), mains, changes);
  },
  grounds(netlist: string | undefined, mains: number | undefined): GroundMapDrawn {
    return usualGrounds(netlist === undefined ? undefined : circuitOf(netlist), mains);
  },
};

function faultsOf(netlist: string, read: ReadToo, progress?: (part: number) => void): FaultTable {
  if (faults?.netlist !== netlist) faults = { netlist, table: new FaultTable(circuitOf(netlist)) };
  const { table } = faults;
  for (const e of read.evidence)
    if (e.kind !== "ohm" && !table.has(e.conditions))
      table.shown(e.conditions, (part) => {
        progress?.(part);
        return true;
      });
  return table;
}

export type NoiseApi = typeof api;

expose(api);
