/** Where the test points of a model lie on photos of a chassis: kept with the model, whatever its version, so that the next amp of the kind has them. */

import type { PointPlace } from "@/core/shop/point-places";
import type { Sql } from "./database";
import { UserError } from "./errors";
import type { AmpModel } from "./models";

type ModelName = Pick<AmpModel, "maker" | "name">;

export async function placesOf(sql: Sql, { maker, name }: ModelName): Promise<PointPlace[]> {
  return sql.query("select point, hash, x, y from point_places where maker = $1 and model = $2 order by point", [maker, name]);
}

/** Marks a point; where it was marked before, it is moved. @throws UserError 422 where there is no such photo. */
export async function markPlace(sql: Sql, { maker, name }: ModelName, { point, hash, x, y }: PointPlace, who: string): Promise<void> {
  const [photo] = await sql.query("select 1 from attachments where hash = $1", [hash]);
  if (!photo)
    throw new UserError(422, `There is no photo ${hash.slice(0, 12)}… in this shop: it has to be stored before a point is marked on it.`);
  await sql.query(
    `insert into point_places (maker, model, point, hash, x, y, marked_by) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (maker, model, point) do update set hash = excluded.hash, x = excluded.x, y = excluded.y, marked_by = excluded.marked_by, marked_at = now()`,
    [maker, name, point, hash, x, y, who],
  );
}

/** Takes a mark away. @throws UserError 404 where the point has none. */
export async function unmarkPlace(sql: Sql, { maker, name }: ModelName, point: string): Promise<void> {
  const gone = await sql.query("delete from point_places where maker = $1 and model = $2 and point = $3 returning id", [
    maker,
    name,
    point,
  ]);
  if (gone.length === 0) throw new UserError(404, `${point} is not marked on a photo of the ${maker} ${name}.`);
}
