import { NextResponse } from "next/server";
import { readBytes, respond, atTheDoor } from "@/app/api/respond";
import { MOST_RECORDING_BYTES, recordingTooLarge, storeRecording } from "@/server/attachments";
import { db } from "@/server/db";

/** Stores a WAV sent as the body; gives its hash. */
export function POST(request: Request) {
  return respond(async () => {
    await atTheDoor(request);
    const bytes = await readBytes(request, MOST_RECORDING_BYTES, recordingTooLarge);
    const stored = await (await db()).transaction((sql) => storeRecording(sql, bytes));
    return NextResponse.json(stored, { status: 201 });
  });
}
