/** Which requests may write: those of this site's own pages and of programs that are no browser. */

/** A page of another site could reach this server by a name of its own that points here; only the shop's names pass. */
export function knownHost(host: string | null): boolean {
  if (!host) return false;
  const name = host.replace(/:\d+$/, "").toLowerCase();
  const extra = (process.env.SCUTUM_HOSTS ?? "")
    .split(",")
    .map((h) => h.trim().toLowerCase())
    .filter(Boolean);
  return ["127.0.0.1", "localhost", "[::1]", ...extra].includes(name);
}

/** Why the request is refused, or undefined. */
export function refusalOf(request: { method: string; headers: Headers }): { status: number; error: string } | undefined {
  const host = request.headers.get("host");
  if (!knownHost(host))
    return {
      status: 421,
      error: `This Scutum does not answer to the name ${JSON.stringify(host)?.slice(0, 80)}. Add it to SCUTUM_HOSTS if it is yours.`,
    };
  if (!["POST", "PUT", "PATCH", "DELETE"].includes(request.method)) return undefined;
  const site = request.headers.get("sec-fetch-site");
  const origin = request.headers.get("origin");
  const foreign = (site !== null && site !== "same-origin" && site !== "none") || (origin !== null && !sameHost(origin, host));
  return foreign ? { status: 403, error: "A write from another site is refused." } : undefined;
}

function sameHost(origin: string, host: string | null): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
