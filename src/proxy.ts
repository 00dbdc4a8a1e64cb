/** Runs before every request: no foreign hosts, no cross-site writes, a content security policy with a nonce. */

import { NextResponse, type NextRequest } from "next/server";
import { refusalOf } from "./app/same-site";
import { mayEnter, NOT_SIGNED_IN } from "./server/door/door";

const HEADERS = {
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  // Photos and recordings are taken here; nothing else of the device is wanted.
  "permissions-policy":
    "camera=(self), microphone=(self), geolocation=(), payment=(), usb=(), serial=(), bluetooth=(), midi=(), display-capture=()",
};

export async function proxy(request: NextRequest): Promise<NextResponse> {
  const refused = refusalOf(request);
  if (refused) return NextResponse.json({ error: refused.error }, { status: refused.status });

  // No page takes anything: forms are sent by script, to the interface.
  if (request.method !== "GET" && request.method !== "HEAD" && !request.nextUrl.pathname.startsWith("/api/"))
    return NextResponse.json({ error: `${request.method} of a page is refused.` }, { status: 405, headers: { allow: "GET, HEAD" } });

  const { pathname, search } = request.nextUrl;
  if (!(await mayEnter(request, pathname))) {
    if (pathname.startsWith("/api/")) return NextResponse.json({ error: NOT_SIGNED_IN }, { status: 401 });
    return NextResponse.redirect(new URL(`/sign-in?to=${encodeURIComponent(pathname + search)}`, request.url));
  }

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
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  if (process.env.SCUTUM_TLS === "1") response.headers.set("strict-transport-security", "max-age=31536000");
  return response;
}

// The routes that take large files check for themselves: what passes here is held in memory and cut at 10 MB.
export const config = { matcher: [{ source: "/((?!_next/static|_next/image|icon.svg|api/v1/photos|api/v1/recordings|api/v1/import).*)" }] };
