import { NextResponse } from "next/server";
import { BadNameBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { addBadName, badNames } from "@/server/bad-names";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";

/** Parts with a bad name in this shop, with the evidence. */
export function GET() {
  return respond(async () => NextResponse.json({ names: await badNames(await db()) }));
}

/** Remembers a part: `{who, letter, words, fromYear, toYear, does, evidence}`. */
export function POST(request: Request) {
  return respond(async () => {
    const { who, ...name } = await readBody(request, BadNameBody);
    const database = await db();
    await addBadName(database, name, (await signerOf(request, who)).initials);
    return NextResponse.json({ names: await badNames(database) }, { status: 201 });
  });
}
