import { NextResponse } from "next/server";
import { TokenBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { addToken, listTokens } from "@/server/door/bench-tokens";
import { ownerOnly } from "@/server/door/door";

/** The tokens of instruments and bridges, without their texts. */
export function GET(request: Request) {
  return respond(async () => {
    await ownerOnly(request);
    return NextResponse.json({ tokens: await listTokens(await db()) });
  });
}

/** Makes one for a bench: `{bench}`. Its text is in this answer and nowhere else. */
export function POST(request: Request) {
  return respond(async () => {
    const person = await ownerOnly(request);
    const { bench } = await readBody(request, TokenBody);
    return NextResponse.json(await addToken(await db(), bench, person?.initials ?? ""), { status: 201 });
  });
}
