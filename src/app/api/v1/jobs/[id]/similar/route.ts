import { NextResponse } from "next/server";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { similarJobs } from "@/server/history";

/** Old jobs like this one, the likest first, with what cured them. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => NextResponse.json({ cases: await similarJobs(await db(), numberIn((await params).id)) }));
}
