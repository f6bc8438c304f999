import type Router from "@koa/router";
import type { Context } from "koa";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { readUpload, serve } from "../http.ts";
import { photoLimits, readPhoto } from "../photos.ts";

const yearS = 365 * 24 * 60 * 60;

/** Photos under the ids their devices gave them: kept once however often they are sent, never changed. */
export function routePhotos(router: Router, services: Services) {
  const { auth, photos } = services;
  router.put(
    endpoints.setPhoto.path,
    serve(endpoints.setPhoto, auth, ({ ctx, user, params }) => keepPhoto(services, ctx, params.photo, user.id)),
  );
  router.get(
    endpoints.photo.path,
    serve(endpoints.photo, auth, async ({ params, query, ctx }) => {
      answerPhoto(ctx, params.photo, await photos.find(params.photo, query.size));
      return undefined;
    }),
  );
}

/** Makes the upload fit to keep and keeps it; one that is known already is only acknowledged. */
export async function keepPhoto(
  { photos, handoverService, clock, database }: Services,
  ctx: Context,
  id: string,
  by: string,
): Promise<{ photo: string; width: number; height: number }> {
  const [known] = await photos.listFacts([id]);
  // The body is read all the same, so that the connection can be used again.
  const bytes = await readUpload(ctx, photoLimits.mostBytes);
  if (known !== undefined) return { photo: id, width: known.width, height: known.height };
  const photo = await readPhoto(bytes);
  await database.inTransaction(async (transaction) => {
    const [meanwhile] = await photos.listFacts([id], transaction);
    if (meanwhile === undefined)
      await photos.add({ ...photo, id, at: new Date(clock.nowMs()).toISOString(), by }, transaction);
  });
  await handoverService.noteArrived(id);
  return { photo: id, width: photo.width, height: photo.height };
}

export function answerPhoto(ctx: Context, id: string, bytes: Buffer | null) {
  if (bytes === null) throw new Failure("not-found", { what: "photo", id });
  ctx.type = "image/jpeg";
  // A photo never changes under its id; it is nobody else's to keep.
  ctx.set("Cache-Control", `private, max-age=${yearS}, immutable`);
  ctx.body = bytes;
}
