import { timingSafeEqual } from "node:crypto";
import { NextResponse } from "next/server";
import { FirstOwnerBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { addPerson, nobodyKnown } from "@/server/door/people";
import { doorShut, hashOf } from "@/server/door/secret";
import { tries } from "@/server/door/tries";
import { UserError } from "@/server/errors";

/** On the first start beyond this machine: makes the owner of the shop. The code stands in the terminal, so that no passer-by is first. */
export function POST(request: Request) {
  return respond(async () => {
    const { code, ...person } = await readBody(request, FirstOwnerBody);
    const wait = tries().waitOf("first owner");
    if (wait > 0) throw new UserError(429, `Too many tries. Try again in ${Math.ceil(wait / 1000)} s.`);
    const right = process.env.SCUTUM_FIRST_CODE ?? "";
    if (!doorShut() || right === "" || !timingSafeEqual(Buffer.from(hashOf(code.trim())), Buffer.from(hashOf(right)))) {
      tries().failed("first owner");
      throw new UserError(403, "This is not the code that the terminal shows.");
    }
    const made = await (
      await db()
    ).transaction(async (sql) => {
      await sql.query("lock table people in exclusive mode");
      if (!(await nobodyKnown(sql))) throw new UserError(409, "This shop has an owner already: sign in.");
      return addPerson(sql, { ...person, role: "owner" });
    });
    return NextResponse.json({ person: made }, { status: 201 });
  });
}
