import { attachmentResponse, respond } from "@/app/api/respond";

/** A photo that is kept here. */
export function GET(request: Request, { params }: { params: Promise<{ hash: string }> }) {
  return respond(async () => attachmentResponse(request, (await params).hash));
}
