/** Runs before every request: no foreign hosts, no cross-site writes, a content security policy with a nonce. */

import { NextResponse, type NextRequest } from "next/server";

const WRITES = new Set(["POST", "PUT", "PATCH", "DELETE"]);

function refuse(status: number, error: string): NextResponse {
  return NextResponse.json({ error }, { status });
}

/** A page of another site could reach this server by a name of its own that points here; only the shop's names pass. */
function knownHost(host: string | null): boolean {
  if (!host) return false;
  const name = host.replace(/:\d+$/, "").toLowerCase();
  const extra = (process.env.SCUTUM_HOSTS ?? "").split(",").map((h) => h.trim().toLowerCase()).filter(Boolean);
  return ["127.0.0.1", "localhost", "[::1]", ...extra].includes(name);
}

export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get("host");
  if (!knownHost(host)) return refuse(421, `This Scutum does not answer to the name ${JSON.stringify(host)?.slice(0, 80)}. Add it to SCUTUM_HOSTS if it is yours.`);
  if (WRITES.has(request.method)) {
    const site = request.headers.get("sec-fetch-site");
    const origin = request.headers.get("origin");
    const foreign = (site !== null && site !== "same-origin" && site !== "none") || (origin !== null && !sameHost(origin, host));
    if (foreign) return refuse(403, "A write from another site is refused.");
  }

  const nonce = btoa(crypto.randomUUID());
  const script = process.env.NODE_ENV === "development" ? "'unsafe-eval'" : "";
  const policy = [
    "default-src 'self'", `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' ${script}`.trim(),
    // Inline styles: React writes style attributes on the server; style elements still need the nonce.
    `style-src 'self' 'nonce-${nonce}'`, "style-src-attr 'unsafe-inline'", "img-src 'self' blob: data:", "font-src 'self'", "connect-src 'self'", "worker-src 'self' blob:",
    "media-src 'self' blob:", "object-src 'none'", "base-uri 'self'", "form-action 'self'", "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("referrer-policy", "same-origin");
  return response;
}

function sameHost(origin: string, host: string | null): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

export const config = { matcher: [{ source: "/((?!_next/static|_next/image|favicon.ico).*)" }] };
