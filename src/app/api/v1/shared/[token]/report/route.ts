import { paperResponse } from "@/app/api/paper-response";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { jobOfLink } from "@/server/door/report-links";
import { UserError } from "@/server/errors";

/** The report of an owner's link as PDF. */
export function GET(request: Request, { params }: { params: Promise<{ token: string }> }) {
  return respond(async () => {
    const job = await jobOfLink(await db(), (await params).token);
    if (job === undefined) throw new UserError(404, "This link is not valid, or its time is over. Ask the shop for a new one.");
    return paperResponse(request, job, { paper: "report" });
  });
}
