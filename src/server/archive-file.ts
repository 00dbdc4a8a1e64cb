/** The file of a job's archive: what it holds, and reading it with every check that needs no shop. */

import { IsArray, IsIn, IsInt, IsUUID, Max, Min, ValidateIf } from "class-validator";
import { createHash } from "node:crypto";
import { strFromU8, unzipSync } from "fflate";
import { IsA, IsListOf, IsStoredHash, IsText } from "@/core/checks/accepted";
import { classErrors } from "@/core/checks/class-errors";
import { payloadErrors } from "@/core/tape/events/validate";
import { referenceErrors, storedReferences } from "@/core/tape/references";
import { photoStoredHere } from "@/core/texts/checks";
import { UserError } from "./errors";
import { envelopeErrors, type IncomingEvent } from "./incoming";
import { parseJson } from "./json";
import type { StoredEvent } from "./tape-read";

export const ARCHIVE_VERSION = 1;
export const ARCHIVE_FORMAT = "scutum-job";
const MOST_BYTES = 300 * 1024 * 1024;
const MOST_EVENTS = 100_000;

class ArchivedJob {
  @IsInt() @Min(1) @Max(999_999_999) number!: number;
  @IsUUID() uid!: string;
}

class ArchivedOwner {
  @IsText(200) name!: string;
  @IsText(200, { empty: true }) contact!: string;
}

class ArchivedAmp {
  @IsText(200) label!: string;
  @IsText(200, { empty: true }) serial!: string;
}

class ArchivedModel {
  @IsText(200) maker!: string;
  @IsText(200) name!: string;
}

class ArchivedAttachment {
  @IsStoredHash(photoStoredHere) hash!: string;
  @IsIn(["image/jpeg", "image/png", "image/webp", "audio/wav"]) type!: string;
  @IsText(200) file!: string;
}

class UnreadableMark {
  @IsText(60) type!: string;
  @IsText(500) unreadable!: string;
}

export class ArchiveFile {
  @IsIn([ARCHIVE_FORMAT]) format!: typeof ARCHIVE_FORMAT;
  @IsInt() version!: number;
  @IsA(() => ArchivedJob) job!: ArchivedJob;
  @IsA(() => ArchivedOwner) owner!: ArchivedOwner;
  @IsA(() => ArchivedAmp) amp!: ArchivedAmp;
  @ValidateIf((_, v) => v !== null) @IsText(1_000_000) netlist!: string | null;
  @ValidateIf((_, v) => v !== null) @IsA(() => ArchivedModel) model!: ArchivedModel | null;
  /** As stored; a line that cannot be understood says why in `unreadable`. */
  @IsArray() events!: StoredEvent[];
  @IsListOf(() => ArchivedAttachment, 10_000) attachments!: ArchivedAttachment[];
}

const broken = (what: string) => new UserError(422, `The archive is damaged: ${what}.`);

/** Reads the ZIP. @throws UserError 413 or 422 with what was read and what is accepted. */
export function readArchive(bytes: Uint8Array): { archive: ArchiveFile; files: Record<string, Uint8Array> } {
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
  const archive = parseJson(strFromU8(text), "job.json in the archive") as ArchiveFile;
  if (archive?.format !== ARCHIVE_FORMAT)
    throw new UserError(422, `job.json says format ${JSON.stringify(archive?.format)?.slice(0, 40)}; "${ARCHIVE_FORMAT}" is wanted.`);
  if (!Number.isInteger(archive.version) || archive.version < 1) throw new UserError(422, "The archive does not say its version.");
  if (archive.version > ARCHIVE_VERSION)
    throw new UserError(
      422,
      `The archive is of version ${archive.version}, written by a newer Scutum; this program reads up to ${ARCHIVE_VERSION}. Update the program first.`,
    );
  const [wrong] = classErrors(ArchiveFile, archive);
  if (wrong) throw broken(`${wrong.field}: ${wrong.message}`);
  checkEvents(archive.events);
  checkAttachments(archive, files);
  return { archive, files };
}

function checkEvents(events: StoredEvent[]): void {
  if (events.length > MOST_EVENTS) throw broken(`its tape has ${events.length} lines; up to ${MOST_EVENTS} are read`);
  events.forEach((e, i) => {
    if (e?.seq !== i + 1) throw broken(`line ${i + 1} of the tape is missing or out of order`);
    if (!e.id || !e.at) throw broken(`line ${i + 1} has no id or no time`);
    if (e.supersedes !== undefined && e.supersedes >= e.seq) throw broken(`line ${e.seq} supersedes a line that comes after it`);
    const envelope = envelopeErrors(e as IncomingEvent);
    // A line that cannot be understood is taken as it is: it stands on the tape and counts for nothing.
    const [wrong] =
      e.unreadable === undefined
        ? [...envelope, ...payloadErrors(e.type, e.payload), ...referenceErrors(e, events)]
        : [...envelope, ...classErrors(UnreadableMark, { type: e.type, unreadable: e.unreadable })];
    if (wrong) throw broken(`line ${e.seq}, ${wrong.field}: ${wrong.message}`);
  });
}

function checkAttachments({ attachments, events }: ArchiveFile, files: Record<string, Uint8Array>): void {
  for (const a of attachments) {
    const data = Object.hasOwn(files, a.file) ? files[a.file] : undefined;
    if (!data) throw broken(`the attachment ${a.file} is missing`);
    if (createHash("sha256").update(data).digest("hex") !== a.hash)
      throw broken(`the attachment ${a.file} is not what it was when it was exported`);
  }
  const stored = new Set(attachments.map((a) => a.hash));
  const lost = soundOnes(events)
    .flatMap(storedReferences)
    .find((r) => !stored.has(r.hash));
  if (lost) throw broken(`a ${lost.kind} that the tape speaks of (${lost.hash.slice(0, 8)}…) is not in it`);
}

/** The lines that can be understood. */
export const soundOnes = (events: StoredEvent[]): StoredEvent[] => events.filter((e) => e.unreadable === undefined);
