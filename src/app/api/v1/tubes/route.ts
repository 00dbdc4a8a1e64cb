import { NextResponse } from "next/server";
import { readBody, StockTubeBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { addStockTube, stockTubes } from "@/server/stock-tubes";

/** The shop's stock of tubes, each with its tests and where it is or went. */
export function GET() {
  return respond(async () => NextResponse.json({ tubes: await stockTubes(await db()) }));
}

/** Takes a tube in: `{who, type, place, note}`; it gets the next number. */
export function POST(request: Request) {
  return respond(async () => {
    const { who, ...tube } = await readBody(request, StockTubeBody);
    const database = await db();
    const number = await addStockTube(database, tube, (await signerOf(request, who)).initials);
    return NextResponse.json({ number, tubes: await stockTubes(database) }, { status: 201 });
  });
}
