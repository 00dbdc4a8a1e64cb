import { NextResponse } from "next/server";
import { readBytes, respond, atTheDoor } from "@/app/api/respond";
import { MOST_PHOTO_BYTES, storePhoto, tooLarge } from "@/server/attachments";
import { db } from "@/server/db";

/** Stores a picture sent as the body; gives its hash. */
export function POST(request: Request) {
  return respond(async () => {
    await atTheDoor(request);
    const bytes = await readBytes(request, MOST_PHOTO_BYTES, tooLarge);
    const stored = await (await db()).transaction((sql) => storePhoto(sql, bytes));
    return NextResponse.json(stored, { status: 201 });
  });
}
