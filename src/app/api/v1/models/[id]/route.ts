import { NextResponse } from "next/server";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { removeExample } from "@/server/examples";

/** Takes an example out of the library. */
export function DELETE(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    await removeExample(await db(), numberIn((await params).id, "amp model"));
    return NextResponse.json({});
  });
}
