import { NextResponse } from "next/server";
import { readBody, StockPartBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { setsPriceRefusedTo } from "@/core/shop/people";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { UserError } from "@/server/errors";
import { addStockPart, stockParts, waitingForParts } from "@/server/stock-parts";

/** The shop's stock of parts, each with the pieces at hand, and the jobs that wait for parts. */
export function GET() {
  return respond(async () => NextResponse.json({ parts: await stockParts(await db()), waiting: await waitingForParts(await db()) }));
}

/** Takes a part in: `{who, letter, value, rating, kind, pieces, …}`; it gets the next number. */
export function POST(request: Request) {
  return respond(async () => {
    const { who, ...part } = await readBody(request, StockPartBody);
    const { initials, role } = await signerOf(request, who);
    const refused = part.price === undefined ? undefined : setsPriceRefusedTo(role);
    if (refused) throw new UserError(403, refused);
    const database = await db();
    const number = await addStockPart(database, part, initials);
    return NextResponse.json({ number, parts: await stockParts(database) }, { status: 201 });
  });
}
