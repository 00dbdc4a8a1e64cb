import { NextResponse } from "next/server";
import { respond } from "@/app/api/respond";
import { search, searchElsewhere } from "@/server/board";
import { db } from "@/server/db";

export function GET(request: Request) {
  return respond(async () => {
    const asked = new URL(request.url).searchParams.get("q")?.slice(0, 200) ?? "";
    return NextResponse.json({ jobs: await search(await db(), asked), elsewhere: await searchElsewhere(await db(), asked) });
  });
}
