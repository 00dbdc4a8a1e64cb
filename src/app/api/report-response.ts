/** The owner's report as a PDF answer: for the shop, and for the owner's link. */

import sharp from "sharp";
import { languageOf } from "@/core/shop/settings";
import { getAttachment } from "@/server/attachments";
import { db } from "@/server/db";
import { blocksApart, pdfApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";

/** A4, or with `?paper=letter` on US Letter. */
export async function reportResponse(request: Request, jobId: number): Promise<Response> {
  const sql = await db();
  const job = await wholeJob(sql, jobId);
  const blocks = await blocksApart(job);
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
  const size = new URL(request.url).searchParams.get("paper") === "letter" ? "LETTER" : "A4";
  const pdf = await pdfApart(languageOf(job.settings), blocks, size, photos);
  return new Response(new Uint8Array(pdf), {
    headers: { "content-type": "application/pdf", "content-disposition": `attachment; filename="job-${job.head.id}-report.pdf"` },
  });
}
