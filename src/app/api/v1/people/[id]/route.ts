import { NextResponse } from "next/server";
import { PersonChangeBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { ownerOnly } from "@/server/door/door";
import { changePerson } from "@/server/door/people";

/** Changes somebody's name, role or passphrase, or says that they have left: `{name?, role?, active?, passphrase?}`. */
export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    await ownerOnly(request);
    const id = numberIn((await params).id, "person");
    return NextResponse.json({ person: await changePerson(await db(), id, await readBody(request, PersonChangeBody)) });
  });
}
