import { NextResponse } from "next/server";
import { readBytes, respond, atTheDoor } from "@/app/api/respond";
import { importJob } from "@/server/archive";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { UserError } from "@/server/errors";

const MOST = 300 * 1024 * 1024;

/** Reads a job archive sent as the body. */
export function POST(request: Request) {
  return respond(async () => {
    await atTheDoor(request);
    const bytes = await readBytes(
      request,
      MOST,
      (n) => `The archive has ${Math.round(n / 1048576)} MB; up to ${MOST / 1048576} MB are read.`,
    );
    const { initials, role } = await signerOf(request, "archive");
    if (role === "apprentice") throw new UserError(403, "An apprentice brings no archive into the shop: ask the technician.");
    return NextResponse.json(await importJob(await db(), bytes, initials), { status: 201 });
  });
}
