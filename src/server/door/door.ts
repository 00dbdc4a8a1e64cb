/** Who may come in: asked once for every request by the proxy, and by each route that has to know who it is. */

import { mayChangeShop, type Person, type Role } from "@/core/shop/people";
import { db } from "../db";
import { UserError } from "../errors";
import type { IncomingEvent } from "../incoming";
import { benchOfToken, instrumentMay } from "./bench-tokens";
import { doorShut } from "./secret";
import { personOfCookie, SESSION_COOKIE } from "./sessions";

/** Open to everybody: signing in itself, a report by its owner's link, and what holds nothing of the shop. */
const OPEN = [
  /^\/sign-in$/,
  /^\/(kept|service-worker\.js|manifest\.webmanifest|icon-(192|512|maskable)\.png|apple-icon\.png)$/,
  /^\/api\/v1\/session$/,
  /^\/api\/v1\/first-owner$/,
  /^\/shared\/[^/]+$/,
  /^\/api\/v1\/shared\/[^/]+\/(report|photos\/[0-9a-f]{64})$/,
];

export const cookieOf = (headers: Headers): string | undefined =>
  headers
    .get("cookie")
    ?.split(/;\s*/)
    .find((c) => c.startsWith(`${SESSION_COOKIE}=`))
    ?.slice(SESSION_COOKIE.length + 1);

export interface Asked {
  method: string;
  headers: Headers;
}

/** Who asks; undefined where the door is open (then nobody is asked), or somebody unknown asks. */
export async function personOf(asked: Asked): Promise<Person | undefined> {
  return doorShut() ? personOfCookie(await db(), cookieOf(asked.headers)) : undefined;
}

/** Whether a request may pass the door. */
export async function mayEnter(asked: Asked, path: string): Promise<boolean> {
  if (!doorShut() || OPEN.some((p) => p.test(path))) return true;
  if (await personOf(asked)) return true;
  return instrumentMay(asked.method, path) && (await benchOf(asked)) !== undefined;
}

/** The bench whose instrument asks, by the token that it sends. */
async function benchOf(asked: Asked) {
  const [, token] = /^Bearer (\S{10,100})$/.exec(asked.headers.get("authorization") ?? "") ?? [];
  return token === undefined ? undefined : benchOfToken(await db(), token);
}

/** By whom what is sent is logged: who is signed in, who made the instrument's token; where the door is open, who the sender says. */
export async function signerOf(asked: Asked, says: string): Promise<{ initials: string; role?: Role }> {
  if (!doorShut()) return { initials: says };
  const person = await personOf(asked);
  if (person) return person;
  const bench = await benchOf(asked);
  if (!bench) throw new UserError(401, NOT_SIGNED_IN);
  return { initials: bench.madeBy };
}

/** Events as they are logged: signed by who sends them, whose role the tape is asked with. */
export async function signedEvents(asked: Asked, events: IncomingEvent[]): Promise<{ events: IncomingEvent[]; role?: Role }> {
  if (!doorShut() || !Array.isArray(events)) return { events };
  const { initials, role } = await signerOf(asked, "");
  return { events: events.map((e) => ({ ...e, who: initials })), role };
}

export const NOT_SIGNED_IN = "Sign in first: this shop is reached over the network.";

/** For the routes that the proxy leaves out. @throws UserError 401. */
export async function refuseStranger(request: Request): Promise<void> {
  if (!(await mayEnter(request, new URL(request.url).pathname))) throw new UserError(401, NOT_SIGNED_IN);
}

/** @throws UserError 403 when somebody who is signed in may not change the shop. Where the door is open everybody may. */
export async function ownerOnly(request: Asked): Promise<Person | undefined> {
  const person = await personOf(request);
  if (doorShut() && !(person && mayChangeShop(person.role))) throw new UserError(403, "Only the owner of the shop may change this.");
  return person;
}
