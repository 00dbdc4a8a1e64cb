import { respond } from "@/app/api/respond";
import { bookkeepingCsv } from "@/server/bookkeeping";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";

/** Bills and payments of the shop as CSV, from one day to another: `?from=2026-01-01&to=2026-03-31`. */
export function GET(request: Request) {
  return respond(async () => {
    const asked = new URL(request.url).searchParams;
    const day = (name: string) => {
      const text = asked.get(name) || undefined;
      if (text !== undefined && !/^\d{4}-\d{2}-\d{2}$/.test(text))
        throw new UserError(400, `${name}: a day as 2026-01-31 is wanted; read “${text.slice(0, 40)}”.`);
      return text;
    };
    const csv = await bookkeepingCsv(await db(), day("from"), day("to"));
    return new Response(csv, {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": 'attachment; filename="bookkeeping.csv"' },
    });
  });
}
