import { NextResponse } from "next/server";
import { MoreEvidenceBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { addEvidence, badNames } from "@/server/bad-names";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";

/** One more case of a bad name, or, with `withdraws`, why it no longer stands: `{who, text, job, line}`. */
export function POST(request: Request, { params }: { params: Promise<{ number: string }> }) {
  return respond(async () => {
    const number = numberIn((await params).number, "bad name");
    const { who, ...evidence } = await readBody(request, MoreEvidenceBody);
    const database = await db();
    await addEvidence(database, number, evidence, (await signerOf(request, who)).initials);
    return NextResponse.json({ names: await badNames(database) }, { status: 201 });
  });
}
