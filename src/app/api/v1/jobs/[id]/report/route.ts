import sharp from "sharp";
import { jobNumber, respond } from "@/app/api/respond";
import { languageOf } from "@/core/shop/settings";
import { getAttachment } from "@/server/attachments";
import { db } from "@/server/db";
import { blocksApart, pdfApart } from "@/server/paper/paper";
import { wholeJob } from "@/server/shop";

/** The owner's report as PDF, A4 or `?paper=letter`. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const sql = await db();
    const job = await wholeJob(sql, jobNumber((await params).id));
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
  });
}
