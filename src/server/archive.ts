/** A job as one open file: a ZIP of job.json, its photos and recordings. Import into an empty shop, export again: the same bytes. */

import { createHash } from "node:crypto";
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import { EVENT_TYPES } from "@/core/tape/events/validate";
import type { JobEvent } from "@/core/tape/events/event";
import { getAttachment, storePhoto, storeRecording } from "./attachments";
import type { Database, Sql } from "./db";
import { UserError } from "./errors";
import { addModel, getModel } from "./models";
import { checkIncoming, getJob, insert, openJob, readTape, writeSummary, type IncomingEvent } from "./tape";

export const ARCHIVE_VERSION = 1;
const FORMAT = "scutum-job";
const MOST_BYTES = 300 * 1024 * 1024;
const EXTENSION: Record<string, string> = { "image/jpeg": "jpg", "image/png": "png", "image/webp": "webp", "audio/wav": "wav" };
/** A ZIP entry needs a date; a fixed one keeps two exports of one job equal. */
const ZIP_DATE = new Date(1980, 0, 1, 0, 0, 0);

interface ArchiveFile {
  format: typeof FORMAT;
  version: number;
  job: { number: number; uid: string };
  owner: { name: string; contact: string };
  amp: { label: string; serial: string };
  netlist: string | null;
  model: { maker: string; name: string } | null;
  events: JobEvent[];
  attachments: { hash: string; type: string; file: string }[];
}

/** JSON with the keys of every object in order, so that the same content is the same text. */
function canonical(value: unknown): string {
  return JSON.stringify(
    value,
    (_, v: unknown) =>
      v && typeof v === "object" && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1))) : v,
    1,
  );
}

/** Hashes of the photos and recordings that a tape speaks of, in order. */
function attachmentsOf(events: JobEvent[]): string[] {
  const hashes = events.flatMap((e) => {
    const p = e.payload as { hash?: string; photo?: string; photos?: string[] };
    return [
      ...((e.type === "photo" || e.type === "recording") && p.hash ? [p.hash] : []),
      ...((e.type === "removed" || e.type === "provoked") && p.photo ? [p.photo] : []),
      ...(e.type === "finding" ? (p.photos ?? []) : []),
    ];
  });
  return [...new Set(hashes)].sort();
}

export async function exportJob(sql: Sql, jobId: number): Promise<Uint8Array> {
  const job = await getJob(sql, jobId);
  const [who] = await sql.query<{ name: string; contact: string; label: string; serial: string }>(
    "select o.name, o.contact, a.label, a.serial from jobs j join owners o on o.id = j.owner_id join amps a on a.id = j.amp_id where j.id = $1",
    [jobId],
  );
  const model = job.modelId === null ? null : await getModel(sql, job.modelId);
  const events = await readTape(sql, jobId);
  const files: Zippable = {};
  const attachments: ArchiveFile["attachments"] = [];
  for (const hash of attachmentsOf(events)) {
    const { type, bytes } = await getAttachment(sql, hash);
    const file = `${type === "audio/wav" ? "recordings" : "photos"}/${hash}.${EXTENSION[type] ?? "bin"}`;
    attachments.push({ hash, type, file });
    // Photos are compressed already.
    files[file] = [Uint8Array.from(bytes), { level: 0, mtime: ZIP_DATE }];
  }
  const archive: ArchiveFile = {
    format: FORMAT,
    version: ARCHIVE_VERSION,
    job: { number: job.id, uid: job.uid },
    owner: { name: who!.name, contact: who!.contact },
    amp: { label: who!.label, serial: who!.serial },
    netlist: model?.netlist ?? null,
    model: model && { maker: model.maker, name: model.name },
    events,
    attachments,
  };
  return zipSync({ "job.json": [strToU8(canonical(archive)), { level: 6, mtime: ZIP_DATE }], ...files });
}

function readArchive(bytes: Uint8Array): { archive: ArchiveFile; files: Record<string, Uint8Array> } {
  if (bytes.length > MOST_BYTES)
    throw new UserError(413, `The archive has ${Math.round(bytes.length / 1048576)} MB; up to ${MOST_BYTES / 1048576} MB are read.`);
  let files: Record<string, Uint8Array>;
  try {
    // A small file that unpacks to a very large one is refused before it is unpacked.
    let total = 0;
    files = unzipSync(bytes, { filter: (f) => (total += f.originalSize) <= MOST_BYTES });
    if (total > MOST_BYTES) throw new Error("unpacks to too much");
  } catch (error) {
    throw new UserError(
      422,
      `The file is not a job archive: it is not a ZIP that can be read (${(error as Error).message}). A .zip that Scutum exported is wanted.`,
    );
  }
  const text = files["job.json"];
  if (!text)
    throw new UserError(
      422,
      `The ZIP holds ${Object.keys(files).slice(0, 3).join(", ") || "nothing"} but no job.json: it is not a job archive.`,
    );
  let archive: ArchiveFile;
  try {
    archive = JSON.parse(strFromU8(text)) as ArchiveFile;
  } catch {
    throw new UserError(422, "job.json in the archive is damaged: it is not JSON.");
  }
  if (archive.format !== FORMAT)
    throw new UserError(422, `job.json says format ${JSON.stringify(archive.format)?.slice(0, 40)}; "${FORMAT}" is wanted.`);
  if (!Number.isInteger(archive.version) || archive.version < 1) throw new UserError(422, "The archive does not say its version.");
  if (archive.version > ARCHIVE_VERSION)
    throw new UserError(
      422,
      `The archive is of version ${archive.version}, written by a newer Scutum; this program reads up to ${ARCHIVE_VERSION}. Update the program first.`,
    );
  return { archive, files };
}

/** Reads an archive into the shop as a job of its own. Gives the number that it has here. All or nothing. */
export async function importJob(database: Database, bytes: Uint8Array): Promise<{ id: number; renumbered: boolean }> {
  const { archive, files } = readArchive(bytes);
  const { job, owner, amp, events } = archive;
  const broken = (what: string) => new UserError(422, `The archive is damaged: ${what}.`);
  if (!job || !Number.isInteger(job.number) || job.number < 1 || !/^[0-9a-f-]{36}$/.test(job.uid ?? ""))
    throw broken("the job's number or identity is missing");
  const text = (x: unknown): x is string => typeof x === "string";
  if (!text(owner?.name) || owner.name === "" || !text(amp?.label) || !Array.isArray(events) || !Array.isArray(archive.attachments))
    throw broken("owner, amp or tape is missing");
  if (archive.netlist !== null && !text(archive.netlist)) throw broken("its circuit is no text");
  const odd = archive.attachments.find((a) => !text(a?.hash) || !text(a.file) || !text(a.type));
  if (odd !== undefined) throw broken(`an attachment reads ${JSON.stringify(odd)?.slice(0, 60)}; a hash, a type and a file are wanted`);
  const unknown = events.find((e) => !EVENT_TYPES.includes(e?.type));
  if (unknown) throw broken(`line ${unknown?.seq} is of the unknown type ${JSON.stringify(unknown?.type)}`);
  for (let i = 0; i < events.length; i += 2000) checkIncoming(events.slice(i, i + 2000) as IncomingEvent[]);
  events.forEach((e, i) => {
    if (e.seq !== i + 1) throw broken(`line ${i + 1} of the tape is missing or out of order`);
    if (!e.id || !e.at) throw broken(`line ${i + 1} has no id or no time`);
    if (e.supersedes !== undefined && e.supersedes >= e.seq) throw broken(`line ${e.seq} supersedes a line that comes after it`);
  });
  for (const a of archive.attachments) {
    const data = files[a.file];
    if (!data) throw broken(`the attachment ${a.file} is missing`);
    if (createHash("sha256").update(data).digest("hex") !== a.hash)
      throw broken(`the attachment ${a.file} is not what it was when it was exported`);
  }
  const stored = new Set(archive.attachments.map((a) => a.hash));
  const lost = attachmentsOf(events).find((h) => !stored.has(h));
  if (lost) throw broken(`a photo or recording that the tape speaks of (${lost.slice(0, 8)}…) is not in it`);

  return database.transaction(async (sql) => {
    const [there] = await sql.query<{ id: number }>("select id from jobs where uid = $1", [job.uid]);
    if (there) throw new UserError(409, `This job is in this shop already, as job ${there.id}. Nothing was changed.`);
    const [ids] = events.length
      ? await sql.query<{ n: number }>("select count(*)::int as n from events where id = any($1::uuid[])", [events.map((e) => e.id)])
      : [{ n: 0 }];
    if (ids!.n > 0) throw new UserError(409, `${ids!.n} lines of this tape are on another job of this shop. Nothing was changed.`);
    for (const a of archive.attachments)
      await (a.type === "audio/wav" ? storeRecording(sql, files[a.file]!) : storePhoto(sql, files[a.file]!));
    const model = archive.netlist === null ? undefined : await addModel(sql, archive.netlist, archive.model ?? {});
    const [taken] = await sql.query<{ id: number }>("select id from jobs where id = $1", [job.number]);
    const head = await openJob(sql, {
      owner: owner.name,
      contact: owner.contact,
      amp: amp.label,
      serial: amp.serial,
      modelId: model?.id,
      who: "",
      uid: job.uid,
      ...(taken ? {} : { id: job.number }),
    });
    await insert(sql, head.id, events);
    await writeSummary(sql, head.id, events);
    return { id: head.id, renumbered: taken !== undefined };
  });
}
