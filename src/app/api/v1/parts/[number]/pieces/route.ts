import { NextResponse } from "next/server";
import { PiecesBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { moveStockPart, stockParts } from "@/server/stock-parts";

/** Pieces that came or were taken: `{who, pieces, why}`, below zero for what was taken. */
export function POST(request: Request, { params }: { params: Promise<{ number: string }> }) {
  return respond(async () => {
    const number = numberIn((await params).number, "part");
    const { who, pieces, why } = await readBody(request, PiecesBody);
    const database = await db();
    await moveStockPart(database, number, pieces, why, (await signerOf(request, who)).initials);
    return NextResponse.json({ parts: await stockParts(database) }, { status: 201 });
  });
}
