import { NextResponse } from "next/server";
import { respond } from "@/app/api/respond";
import { search } from "@/server/board";
import { db } from "@/server/db";

export function GET(request: Request) {
  return respond(async () =>
    NextResponse.json({ jobs: await search(await db(), new URL(request.url).searchParams.get("q")?.slice(0, 200) ?? "") }),
  );
}
