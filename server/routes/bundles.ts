import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { readUpload, serve } from "../http.ts";
import { zipLimits } from "../zip.ts";

/** Sealed handovers out of the store and into it, and whether one is still what was sealed. */
export function routeBundles(router: Router, { auth, bundleService }: Services) {
  const attach = (id: string, ending: string) => `attachment; filename="handover-${id}.${ending}"`;
  router.get(
    endpoints.bundle.path,
    serve(endpoints.bundle, auth, async ({ params, ctx }) => {
      const bundle = await bundleService.writeBundle(params.delivery);
      ctx.set("Content-Disposition", attach(params.delivery, "json"));
      ctx.body = bundle;
      return undefined;
    }),
  );
  router.get(
    endpoints.bundleZip.path,
    serve(endpoints.bundleZip, auth, async ({ params, ctx }) => {
      ctx.body = await bundleService.writeBundleZip(params.delivery);
      ctx.type = "application/zip";
      ctx.set("Content-Disposition", attach(params.delivery, "zip"));
      return undefined;
    }),
  );
  router.get(
    endpoints.marksCsv.path,
    serve(endpoints.marksCsv, auth, async ({ params, ctx }) => {
      ctx.body = await bundleService.writeMarksCsv(params.delivery);
      ctx.type = "text/csv; charset=utf-8";
      ctx.set("Content-Disposition", attach(params.delivery, "csv"));
      return undefined;
    }),
  );
  router.post(
    endpoints.verify.path,
    serve(endpoints.verify, auth, ({ body }) => bundleService.verify(body)),
  );
  router.post(
    endpoints.previewBundle.path,
    serve(endpoints.previewBundle, auth, async ({ ctx }) =>
      bundleService.preview(await readUpload(ctx, zipLimits.mostBytes)),
    ),
  );
  router.post(
    endpoints.importBundle.path,
    serve(endpoints.importBundle, auth, async ({ ctx, query, user }) =>
      bundleService.importBundle(await readUpload(ctx, zipLimits.mostBytes), query.trust ?? null, user.id),
    ),
  );
}
