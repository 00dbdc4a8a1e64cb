import { NextResponse } from "next/server";
import { SessionBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { cookieOf, personOf } from "@/server/door/door";
import { SESSION_COOKIE, SESSION_DAYS, signIn, signOut, signOutEverywhere } from "@/server/door/sessions";

const FLAGS = { httpOnly: true, sameSite: "lax", path: "/" } as const;

/** Signs in: `{initials, passphrase}`. The cookie is the session. */
export function POST(request: Request) {
  return respond(async () => {
    const { initials, passphrase } = await readBody(request, SessionBody);
    const device = request.headers.get("user-agent") ?? "";
    const { cookie, person } = await signIn(await db(), initials, passphrase, request.headers.get("x-scutum-from") ?? "", device);
    const response = NextResponse.json({ person });
    response.cookies.set(SESSION_COOKIE, cookie, { ...FLAGS, secure: process.env.SCUTUM_TLS === "1", maxAge: SESSION_DAYS * 86400 });
    return response;
  });
}

/** Signs out here; with `?everywhere=yes` on every device. */
export function DELETE(request: Request) {
  return respond(async () => {
    const [sql, person] = [await db(), await personOf(request)];
    const everywhere = new URL(request.url).searchParams.get("everywhere") === "yes";
    if (everywhere && person) await signOutEverywhere(sql, person.id);
    else await signOut(sql, cookieOf(request.headers) ?? "");
    const response = NextResponse.json({});
    response.cookies.set(SESSION_COOKIE, "", { ...FLAGS, maxAge: 0 });
    return response;
  });
}
