import { NextResponse } from "next/server";
import { MinimumBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { setMinimum, stockParts } from "@/server/stock-parts";

/** How many of a part the shop wants to have at least: `{who, minimum}`. */
export function POST(request: Request, { params }: { params: Promise<{ number: string }> }) {
  return respond(async () => {
    const number = numberIn((await params).number, "part");
    const { who, minimum } = await readBody(request, MinimumBody);
    const database = await db();
    await setMinimum(database, number, minimum, (await signerOf(request, who)).initials);
    return NextResponse.json({ parts: await stockParts(database) }, { status: 201 });
  });
}
