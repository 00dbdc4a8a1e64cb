import { NextResponse } from "next/server";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { linkTo } from "@/server/door/report-links";
import { getJob } from "@/server/tape-read";

/** A link for the amp's owner to the report of this job: `{path, until}`. */
export function POST(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const sql = await db();
    const { id } = await getJob(sql, numberIn((await params).id));
    const { token, until } = await linkTo(sql, id);
    return NextResponse.json({ path: `/shared/${token}`, until }, { status: 201 });
  });
}
