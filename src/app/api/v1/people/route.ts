import { NextResponse } from "next/server";
import { PersonBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { ownerOnly } from "@/server/door/door";
import { addPerson, listPeople } from "@/server/door/people";

/** The people of the shop, for its owner. */
export function GET(request: Request) {
  return respond(async () => {
    await ownerOnly(request);
    return NextResponse.json({ people: await listPeople(await db()) });
  });
}

/** Adds somebody: `{initials, name, role, passphrase}`. */
export function POST(request: Request) {
  return respond(async () => {
    await ownerOnly(request);
    return NextResponse.json({ person: await addPerson(await db(), await readBody(request, PersonBody)) }, { status: 201 });
  });
}
