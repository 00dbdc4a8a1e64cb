import { NextResponse } from "next/server";
import { readBody, StockMoveBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { moveStockTube, stockTubes } from "@/server/stock-tubes";

/** Says where a tube is from now on: `{who, place}`. */
export function POST(request: Request, { params }: { params: Promise<{ number: string }> }) {
  return respond(async () => {
    const number = numberIn((await params).number, "tube");
    const { who, place } = await readBody(request, StockMoveBody);
    const database = await db();
    await moveStockTube(database, number, place, (await signerOf(request, who)).initials);
    return NextResponse.json({ tubes: await stockTubes(database) }, { status: 201 });
  });
}
