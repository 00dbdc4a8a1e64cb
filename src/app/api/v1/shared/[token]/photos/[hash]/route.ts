import { attachmentAnswer, respond } from "@/app/api/respond";
import { storedReferences } from "@/core/tape/references";
import { db } from "@/server/db";
import { jobOfLink } from "@/server/door/report-links";
import { UserError } from "@/server/errors";
import { readTape } from "@/server/tape-read";

/** A photo of the job that an owner's link opens. */
export function GET(_request: Request, { params }: { params: Promise<{ token: string; hash: string }> }) {
  return respond(async () => {
    const { token, hash } = await params;
    const sql = await db();
    const job = await jobOfLink(sql, token);
    const known =
      job !== undefined && (await readTape(sql, job)).flatMap(storedReferences).some((r) => r.kind === "photo" && r.hash === hash);
    if (!known) throw new UserError(404, "There is no such photo here.");
    return attachmentAnswer(hash);
  });
}
