/** The simulated bench of the jobs that have one: which amp with which true fault, how its tape says that it stands, and its clock. */

import { BenchAmp, partOf, type BenchFault } from "@/bench/amp";
import { BenchChannel, type Listener, type Simulator } from "@/bench/channel";
import { listen } from "@/bench/recordings";
import { reformRuns } from "@/core/capacitor/reform-run";
import { BenchSession, type BenchState } from "@/bench/session";
import { writeWav } from "@/core/sound/wav";
import type { JobState } from "@/core/tape/fold";
import { foldJob } from "@/core/tape/fold";
import { wallVolts } from "@/core/circuit/mains-connection";
import { changesIn, withPoints } from "@/core/job/circuit-in-use";
import { readCircuit } from "@/core/circuit/read";
import { db } from "./db";
import type { Sql } from "./database";
import { UserError } from "./errors";
import { wholeJob, type WholeJob } from "./shop";
import { getJob } from "./tape-read";

export interface BenchRecord {
  seed: number;
  faults: BenchFault[];
}

export async function putOnBench(sql: Sql, jobId: number, record: BenchRecord): Promise<void> {
  await sql.query(
    "insert into bench_amps (job_id, seed, faults) values ($1, $2, $3::jsonb) on conflict (job_id) do update set seed = excluded.seed, faults = excluded.faults",
    [jobId, record.seed, JSON.stringify(record.faults)],
  );
}

export async function benchRecord(sql: Sql, jobId: number): Promise<BenchRecord | undefined> {
  const [row] = await sql.query<BenchRecord>("select seed, faults from bench_amps where job_id = $1", [jobId]);
  return row;
}

/** The faults that are still in the amp: a part that was replaced took its fault with it, a board that was cleaned conducts less. */
export function faultsLeft(given: BenchFault[], state: Pick<JobState, "changes" | "boardsCleaned">): BenchFault[] {
  const faults = given.map((f) => (f.cleaned !== undefined && state.boardsCleaned.length > 0 ? { ...f, set: f.cleaned } : f));
  const replaced = state.changes.filter((c) => c.outcome !== "reverted").map((c) => c.position.trim().toUpperCase());
  const transformer = replaced.some((position) => /TRANSFORMER|HT WINDING/.test(position));
  return faults.filter((f) =>
    // Shorted turns are written at the rectifier that shows them, and leave with the transformer.
    f.set.endsWith("=winding-short")
      ? !transformer
      : !replaced.some((position) => [partOf(f.set), f.part?.toUpperCase()].some((p) => p === position || p?.startsWith(`${position}.`))),
  );
}

/** How the tape says that the amp stands. `at` is milliseconds since 1970. */
export function standing(state: JobState, at: number): BenchState {
  const { power } = state;
  const seconds = power ? Math.max(0, (at - Date.parse(power.at)) / 1000) : Infinity;
  const on = power?.state === "on";
  const open = reformRuns(state).findLast((r) => r.state === "running");
  const reforming = open?.begun;
  return {
    on,
    seconds,
    without: on ? power.without : [],
    // What is tried in the amp is tried in this one too.
    set: changesIn(state),
    warmMinutes: on ? seconds / 60 : 0,
    noted: "",
    lamp: on && power.through?.includes("lamp") === true,
    ...(reforming ? { reforming } : {}),
  };
}

/** Milliseconds of the bench for one of the wall clock: above one only in tests, so that they need not wait for a hand. */
const HASTE = Number(process.env.SCUTUM_BENCH_HASTE ?? 1) || 1;
const TICK_MS = 125;
const TAPE_MS = 1000;
/** A wall strays from its usual volts by no more than this part. */
const WALL_WITHIN = 0.06;

const shared = globalThis as typeof globalThis & { scutumBenches?: Map<number, BenchChannel> };

/** The channel of a job; made at the first call. @throws UserError 404 for a job that is not here. */
export async function benchChannel(jobId: number): Promise<BenchChannel> {
  await getJob(await db(), jobId);
  shared.scutumBenches ??= new Map();
  let channel = shared.scutumBenches.get(jobId);
  if (!channel) {
    channel = new BenchChannel((send) => simulate(jobId, send));
    shared.scutumBenches.set(jobId, channel);
  }
  return channel;
}

/**
 * What a microphone before the amp records now, as a WAV of 44.1 kHz. @param noted circumstances, as the faults name them.
 * @throws UserError 409 when the amp is off or is not on the simulated bench.
 */
export async function recordAmp(jobId: number, seconds: number, noted: string): Promise<Uint8Array> {
  const database = await db();
  const [record, job] = [await benchRecord(database, jobId), await wholeJob(database, jobId)];
  if (!record || !job.model) throw new UserError(409, "No simulated microphone: this amp is not on the simulated bench.");
  const state = foldJob(job.events);
  const stands = standing(state, Date.now());
  if (!stands.on) throw new UserError(409, "The amp is off: there is nothing to hear. Put it on, with its speaker or a load.");
  const amp = new BenchAmp(job.model.netlist, record.seed, faultsLeft(record.faults, state));
  const mains = wallOf(state.mainsVolts, usualVolts(job));
  const heard = amp.sounds({ mains, without: stands.without, set: [], warmMinutes: stands.warmMinutes, noted });
  const options = {
    rate: 44_100,
    seconds,
    mains: amp.circuit.mains?.hertz ?? 50,
    seed: record.seed + Math.round(stands.seconds),
    room: -74,
  };
  return writeWav([listen(heard, options)], options.rate, 16);
}

/** The tape's last mains may have been read behind a lamp or a turned dial: then the wall is the shop's usual one. */
export function wallOf(logged: number | undefined, usual: number): number {
  return logged !== undefined && Math.abs(logged - usual) <= WALL_WITHIN * usual ? logged : usual;
}

/** A line-connected set stands behind its step-down transformer: the wall's volts are its own. */
function usualVolts(job: WholeJob): number {
  return wallVolts(job.model && readCircuit(job.model.netlist).circuit, job.settings.mainsVolts);
}

async function simulate(jobId: number, send: Listener): Promise<Simulator | undefined> {
  const database = await db();
  const record = await benchRecord(database, jobId);
  const job = await wholeJob(database, jobId);
  if (!record || !job.model) return undefined;
  // The probe finds the points that the job has of its own.
  const ampOf = (j: WholeJob, state: JobState) =>
    new BenchAmp(
      withPoints(j.model!.netlist, readCircuit(j.model!.netlist).circuit, state.points),
      record.seed,
      faultsLeft(record.faults, state),
    );
  const started = Date.now();
  const clock = () => started + (Date.now() - started) * HASTE;
  let state = foldJob(job.events);
  let lines = job.events.length;
  const session = new BenchSession(ampOf(job, state), standing(state, Date.now()), {
    seed: record.seed,
    wall: wallOf(state.mainsVolts, usualVolts(job)),
  });

  const follow = async () => {
    const now = await wholeJob(database, jobId);
    const moved = now.events.length !== lines;
    if (moved) {
      state = foldJob(now.events);
      lines = now.events.length;
    }
    session.stands(standing(state, Date.now()), moved ? ampOf(now, state) : undefined);
  };
  let silent = false;
  const tick = setInterval(() => {
    if (deaf) return;
    try {
      session.until(clock(), Date.now()).forEach(send);
      silent = false;
    } catch (error) {
      // An amp that does not settle has no volts to show: the meter is silent until it does, the reason goes to the log.
      if (!silent) console.error(`scutum: the simulated bench of job ${jobId}: ${(error as Error).message}`);
      if (!silent) send("gone meter");
      silent = true;
    }
  }, TICK_MS);
  let deaf = false;
  const hear = async () => {
    try {
      await follow();
      deaf = false;
    } catch (error) {
      // Without the tape the simulated amp does not know whether it is on: its meter is silent rather than wrong.
      if (!deaf) console.error(`scutum: the simulated bench of job ${jobId} cannot read its tape: ${(error as Error).message}`);
      if (!deaf) send("gone meter");
      deaf = true;
    }
  };
  const tape = setInterval(() => void hear(), TAPE_MS);
  tick.unref();
  tape.unref();
  const stop = () => {
    clearInterval(tick);
    clearInterval(tape);
  };
  return {
    tell: (line) => {
      try {
        session.tell(line, clock());
      } catch (error) {
        throw new UserError(400, (error as Error).message);
      }
    },
    stop,
  };
}
