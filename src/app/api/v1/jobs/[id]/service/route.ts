import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { wholeJob } from "@/server/shop";
import { serviceCalendar } from "@/server/service-calendar";

/** The next service as a calendar file (iCalendar, RFC 5545). */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const job = await wholeJob(await db(), numberIn((await params).id));
    return new Response(serviceCalendar(job), {
      headers: {
        "content-type": "text/calendar; charset=utf-8",
        "content-disposition": `attachment; filename="job-${job.head.id}-service.ics"`,
      },
    });
  });
}
