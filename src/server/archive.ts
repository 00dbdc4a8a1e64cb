/** A job as one open file: a ZIP of job.json, its photos and recordings. Import into an empty shop, export again: the same bytes. */

import { strToU8, zipSync, type Zippable } from "fflate";
import { storedReferences } from "@/core/tape/references";
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, readArchive, soundOnes, type ArchiveFile } from "./archive-file";
import { getAttachment, storePhoto, storeRecording } from "./attachments";
import type { Database, Sql } from "./database";
import { UserError } from "./errors";
import { addModel, getModel } from "./models";
import { writeSummary } from "./summaries";
import { appendIn, insert, openJob, refuseMissing } from "./tape";
import { getJob, readStored, readTape, type StoredEvent } from "./tape-read";
import { unreadableOf, writeUnreadable } from "./unreadable";

const EXTENSION: Record<string, string> = { "image/jpeg": "jpg", "image/png": "png", "image/webp": "webp", "audio/wav": "wav" };
/** A ZIP entry needs a date; a fixed one keeps two exports of one job equal. */
const ZIP_DATE = new Date(1980, 0, 1, 0, 0, 0);

/** JSON with the keys of every object in order, so that the same content is the same text. */
function canonical(value: unknown): string {
  return JSON.stringify(
    value,
    (_, v: unknown) =>
      v && typeof v === "object" && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1))) : v,
    1,
  );
}

/** Hashes of the photos and recordings that the tape speaks of, in order; of a line that cannot be understood it is not known. */
const hashesOf = (events: StoredEvent[]): string[] =>
  [...new Set(soundOnes(events).flatMap((e) => storedReferences(e).map((r) => r.hash)))].sort();

export async function exportJob(sql: Sql, jobId: number): Promise<Uint8Array> {
  const job = await getJob(sql, jobId);
  const [who] = await sql.query<{ name: string; contact: string; label: string; serial: string }>(
    "select o.name, o.contact, a.label, a.serial from jobs j join owners o on o.id = j.owner_id join amps a on a.id = j.amp_id where j.id = $1",
    [jobId],
  );
  const model = job.modelId === null ? null : await getModel(sql, job.modelId);
  const events = await readStored(sql, jobId);
  const files: Zippable = {};
  const attachments: ArchiveFile["attachments"] = [];
  for (const hash of hashesOf(events)) {
    const { type, bytes } = await getAttachment(sql, hash);
    const file = `${type === "audio/wav" ? "recordings" : "photos"}/${hash}.${EXTENSION[type] ?? "bin"}`;
    attachments.push({ hash, type, file });
    // Photos are compressed already.
    files[file] = [Uint8Array.from(bytes), { level: 0, mtime: ZIP_DATE }];
  }
  const archive: ArchiveFile = {
    format: ARCHIVE_FORMAT,
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

/**
 * Reads an archive into the shop as a job of its own. Gives the number that it has here. All or nothing. A last line says where its lines
 * come from: what they claim of people, money and the amp's state is a claim.
 */
export async function importJob(database: Database, bytes: Uint8Array, who = "archive"): Promise<{ id: number; renumbered: boolean }> {
  const { archive, files } = readArchive(bytes);
  const { job, owner, amp, events } = archive;
  const made = await database.transaction(async (sql) => {
    const [there] = await sql.query<{ id: number }>("select id from jobs where uid = $1", [job.uid]);
    if (there) throw new UserError(409, `This job is in this shop already, as job ${there.id}. Nothing was changed.`);
    const [ids] = events.length
      ? await sql.query<{ n: number }>("select count(*)::int as n from events where id = any($1::uuid[])", [events.map((e) => e.id)])
      : [{ n: 0 }];
    if (ids!.n > 0) throw new UserError(409, `${ids!.n} lines of this tape are on another job of this shop. Nothing was changed.`);
    for (const a of archive.attachments)
      await (a.type === "audio/wav" ? storeRecording(sql, files[a.file]!) : storePhoto(sql, files[a.file]!, "it came"));
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
    await refuseMissing(sql, soundOnes(events));
    await insert(sql, head.id, events);
    await writeUnreadable(sql, unreadableOf(head.id, events));
    await appendIn(sql, head.id, [{ type: "brought-in", payload: { from: `job ${job.number} of ${owner.name}`.slice(0, 200) }, who }], {
      server: true,
    });
    await writeSummary(sql, head.id, await readTape(sql, head.id));
    return { id: head.id, renumbered: taken !== undefined };
  });
  await database.announce(made.id);
  return made;
}
