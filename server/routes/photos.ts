import type Router from "@koa/router";
import { ulid } from "ulid";
import { endpoints } from "../../api/index.ts";
import { Failure } from "../failure.ts";
import { readUpload, serve } from "../http.ts";
import { photoLimits, readPhoto } from "../photos.ts";
import type { Services } from "../services.ts";

const yearS = 365 * 24 * 60 * 60;

export function routePhotos(router: Router, { door, photos, clock }: Services) {
  router.post(
    endpoints.addPhoto.path,
    serve(endpoints.addPhoto, door, async ({ ctx, user }) => {
      const photo = await readPhoto(await readUpload(ctx, photoLimits.mostBytes));
      const id = ulid().toLowerCase();
      await photos.add({ ...photo, id, at: new Date(clock.nowMs()).toISOString(), by: user.id });
      return { photo: id, width: photo.width, height: photo.height };
    }),
  );
  router.get(
    endpoints.photo.path,
    serve(endpoints.photo, door, async ({ params, query, ctx }) => {
      const bytes = await photos.find(params.photo, query.size);
      if (bytes === null) throw new Failure("not-found", { what: "photo", id: params.photo });
      ctx.type = "image/jpeg";
      // A photo never changes under its id; it is nobody else's to keep.
      ctx.set("Cache-Control", `private, max-age=${yearS}, immutable`);
      ctx.body = bytes;
      return undefined;
    }),
  );
}
