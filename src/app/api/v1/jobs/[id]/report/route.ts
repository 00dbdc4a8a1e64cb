import { paperResponse } from "@/app/api/paper-response";
import { numberIn, respond } from "@/app/api/respond";

/** The owner's report as PDF, A4 or `?paper=letter`. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => paperResponse(request, numberIn((await params).id), { paper: "report" }));
}
