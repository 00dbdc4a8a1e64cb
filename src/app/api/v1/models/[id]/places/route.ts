import { NextResponse } from "next/server";
import { PlaceBody, readBody, UnmarkBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { getModel } from "@/server/models";
import { markPlace, placesOf, unmarkPlace } from "@/server/point-places";

type Context = { params: Promise<{ id: string }> };

const modelIn = async ({ params }: Context) => getModel(await db(), numberIn((await params).id, "amp model"));

/** Where the points of a model lie on photos of its chassis. */
export function GET(_request: Request, context: Context) {
  return respond(async () => NextResponse.json({ places: await placesOf(await db(), await modelIn(context)) }));
}

/** Marks a point on a photo, or moves its mark: `{who, point, hash, x, y}`. */
export function PUT(request: Request, context: Context) {
  return respond(async () => {
    const { who, ...place } = await readBody(request, PlaceBody);
    const model = await modelIn(context);
    await markPlace(await db(), model, place, (await signerOf(request, who)).initials);
    return NextResponse.json({ places: await placesOf(await db(), model) });
  });
}

/** Takes a mark away: `{point}`. */
export function DELETE(request: Request, context: Context) {
  return respond(async () => {
    const { point } = await readBody(request, UnmarkBody);
    const model = await modelIn(context);
    await unmarkPlace(await db(), model, point);
    return NextResponse.json({ places: await placesOf(await db(), model) });
  });
}
