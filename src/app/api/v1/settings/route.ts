import { NextResponse } from "next/server";
import { readJson, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { ownerOnly } from "@/server/door/door";
import { getSettings, saveSettings } from "@/server/settings";

export function GET() {
  return respond(async () => NextResponse.json(await getSettings(await db())));
}

export function PUT(request: Request) {
  return respond(async () => {
    await ownerOnly(request);
    const settings = await readJson(request);
    return NextResponse.json(await (await db()).transaction((sql) => saveSettings(sql, settings)));
  });
}
