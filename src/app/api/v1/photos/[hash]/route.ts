import { respond, sameSiteOnly } from "@/app/api/respond";
import { getAttachment } from "@/server/attachments";
import { db } from "@/server/db";

export function GET(request: Request, { params }: { params: Promise<{ hash: string }> }) {
  return respond(async () => {
    sameSiteOnly(request);
    const photo = await getAttachment(await db(), (await params).hash);
    return new Response(Buffer.from(photo.bytes), {
      headers: {
        "content-type": photo.type,
        "cache-control": "private, max-age=31536000, immutable",
        "content-security-policy": "default-src 'none'",
      },
    });
  });
}
