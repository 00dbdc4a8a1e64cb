import { paperResponse } from "@/app/api/paper-response";
import { numberIn, respond } from "@/app/api/respond";
import { readPaperName } from "@/core/papers/paper-name";
import { UserError } from "@/server/errors";

/** A paper of a job as PDF, A4 or `?paper=letter`, or with `?as=text` as the text of a message. */
export function GET(request: Request, { params }: { params: Promise<{ id: string; paper: string }> }) {
  return respond(async () => {
    const { id, paper } = await params;
    const name = readPaperName(paper);
    if (!name)
      throw new UserError(
        404,
        "There is no such paper; there are report, history, quote-12, question-12 and bill-12, by the line of the tape.",
      );
    return paperResponse(request, numberIn(id), name);
  });
}
