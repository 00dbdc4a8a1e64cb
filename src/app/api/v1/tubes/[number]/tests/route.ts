import { NextResponse } from "next/server";
import { readBody, StockTestBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { stockTubes, testStockTube } from "@/server/stock-tubes";

/** Adds a test of a tube: `{who, milliamps, gm, plateVolts, screenVolts, gridVolts, shorts, note}`. */
export function POST(request: Request, { params }: { params: Promise<{ number: string }> }) {
  return respond(async () => {
    const number = numberIn((await params).number, "tube");
    const { who, ...test } = await readBody(request, StockTestBody);
    const database = await db();
    await testStockTube(database, number, test, (await signerOf(request, who)).initials);
    return NextResponse.json({ tubes: await stockTubes(database) }, { status: 201 });
  });
}
