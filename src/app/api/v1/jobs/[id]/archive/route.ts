import { numberIn, respond } from "@/app/api/respond";
import { exportJob } from "@/server/archive";
import { db } from "@/server/db";

/** The job as one ZIP. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const id = numberIn((await params).id);
    const bytes = await exportJob(await db(), id);
    return new Response(Buffer.from(bytes), {
      headers: { "content-type": "application/zip", "content-disposition": `attachment; filename="job-${id}.zip"` },
    });
  });
}
