import { NextResponse } from "next/server";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { revokeToken } from "@/server/door/bench-tokens";
import { ownerOnly } from "@/server/door/door";

/** Revokes a token: its instrument is refused from now on. */
export function DELETE(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    await ownerOnly(request);
    await revokeToken(await db(), numberIn((await params).id, "token"));
    return NextResponse.json({});
  });
}
