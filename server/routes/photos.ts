import { createHash } from "node:crypto";
import type Router from "@koa/router";
import type { Context } from "koa";
import { endpoints } from "../../api/index.ts";
import { isPhotoOf } from "../../core/walk/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { readUpload, serve } from "../http.ts";
import { photoLimits, readPhoto } from "../photos.ts";

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

const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");

/**
 * Makes the upload fit to keep and keeps it; one that is known already is only acknowledged. A photo's id holds the hash of
 * the bytes its device sends, so that nobody can put others in its place. Failures: `photo-differs`, `not-a-photo`.
 */
export async function keepPhoto(
  { photos, handoverService, takePhoto, clock, database }: Services,
  ctx: Context,
  id: string,
  by: string,
): Promise<{ photo: string; width: number; height: number }> {
  // The body is read all the same, so that the connection can be used again.
  const bytes = await readUpload(ctx, photoLimits.mostBytes);
  const sent = hashBytes(bytes);
  if (!isPhotoOf(id, sent)) throw new Failure("photo-differs", { photo: id, got: sent });
  let [known] = await photos.listFacts([id]);
  if (known === undefined) {
    const photo = { ...(await takePhoto(by, () => readPhoto(bytes))), sent, id, at: clock.now(), by };
    known = await database.inTransaction(async (transaction) => {
      const [meanwhile] = await photos.listFacts([id], transaction);
      if (meanwhile === undefined) await photos.add(photo, transaction);
      return meanwhile ?? photo;
    });
  }
  // Also of one that was here: what was to follow may have been interrupted.
  await handoverService.noteArrived(id);
  return { photo: id, width: known.width, height: known.height };
}

export function answerPhoto(ctx: Context, id: string, bytes: Buffer | null) {
  if (bytes === null) throw new Failure("not-found", { what: "photo", id });
  ctx.type = "image/jpeg";
  ctx.body = bytes;
}
