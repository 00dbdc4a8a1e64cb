/** A paper of a job as a PDF answer: for the shop, and the report for the owner's link too; or as the text of a message. */

import sharp from "sharp";
import { languageOf } from "@/core/shop/settings";
import { messageOf } from "@/core/papers/message";
import { writePaperName, type PaperName } from "@/core/papers/paper-name";
import { getAttachment } from "@/server/attachments";
import { db } from "@/server/db";
import { blocksApart, pdfApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";

/** A4, or with `?paper=letter` on US Letter; `?as=text` is the text of a message. */
export async function paperResponse(request: Request, jobId: number, name: PaperName): Promise<Response> {
  const sql = await db();
  const job = await wholeJob(sql, jobId);
  const blocks = await blocksApart(job, name);
  const asked = new URL(request.url).searchParams;
  if (asked.get("as") === "text") return new Response(messageOf(blocks), { headers: { "content-type": "text/plain; charset=utf-8" } });
  const photos: [string, Uint8Array][] = [];
  for (const { hash } of blocks.flatMap((b) => (b.block === "photos" ? b.photos : []))) {
    // Turned upright and brought to print size; the original stays in the shop.
    photos.push([
      hash,
      await sharp((await getAttachment(sql, hash)).bytes)
        .rotate()
        .resize(900, 900, { fit: "inside", withoutEnlargement: true })
        .jpeg({ quality: 82 })
        .toBuffer(),
    ]);
  }
  const size = asked.get("paper") === "letter" ? "LETTER" : "A4";
  const pdf = await pdfApart(languageOf(job.settings), blocks, size, photos);
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `attachment; filename="job-${job.head.id}-${writePaperName(name)}.pdf"`,
    },
  });
}
