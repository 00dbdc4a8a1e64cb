/** Runs before every request: no foreign hosts, no cross-site writes, a content security policy with a nonce. */

import { NextResponse, type NextRequest } from "next/server";
import { refusalOf } from "./app/same-site";

export function proxy(request: NextRequest): NextResponse {
  const refused = refusalOf(request);
  if (refused) return NextResponse.json({ error: refused.error }, { status: refused.status });

  // No page takes anything: forms are sent by script, to the interface.
  if (request.method !== "GET" && request.method !== "HEAD" && !request.nextUrl.pathname.startsWith("/api/"))
    return NextResponse.json({ error: `${request.method} of a page is refused.` }, { status: 405, headers: { allow: "GET, HEAD" } });

  const nonce = btoa(crypto.randomUUID());
  const script = process.env.NODE_ENV === "development" ? "'unsafe-eval'" : "";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' ${script}`.trim(),
    // Inline styles: React writes style attributes on the server; style elements still need the nonce.
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "media-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
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

// The routes that take large files check for themselves: what passes here is held in memory and cut at 10 MB.
export const config = { matcher: [{ source: "/((?!_next/static|_next/image|icon.svg|api/v1/photos|api/v1/recordings|api/v1/import).*)" }] };
