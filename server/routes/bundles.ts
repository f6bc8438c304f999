import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { readUpload, serve } from "../http.ts";
import { zipLimits } from "../zip.ts";

/** Sealed handovers out of the store and into it, and whether one is still what was sealed. */
export function routeBundles(router: Router, { door, bundleService }: Services) {
  const attach = (id: string, ending: string) => `attachment; filename="handover-${id}.${ending}"`;
  router.get(
    endpoints.bundle.path,
    serve(endpoints.bundle, door, async ({ params, ctx }) => {
      const bundle = await bundleService.writeBundle(params.delivery);
      ctx.set("Content-Disposition", attach(params.delivery, "json"));
      ctx.body = bundle;
      return undefined;
    }),
  );
  router.get(
    endpoints.bundleZip.path,
    serve(endpoints.bundleZip, door, async ({ params, ctx }) => {
      ctx.body = await bundleService.writeBundleZip(params.delivery);
      ctx.type = "application/zip";
      ctx.set("Content-Disposition", attach(params.delivery, "zip"));
      return undefined;
    }),
  );
  router.get(
    endpoints.marksCsv.path,
    serve(endpoints.marksCsv, door, async ({ params, ctx }) => {
      ctx.body = await bundleService.writeMarksCsv(params.delivery);
      ctx.type = "text/csv; charset=utf-8";
      ctx.set("Content-Disposition", attach(params.delivery, "csv"));
      return undefined;
    }),
  );
  router.post(
    endpoints.verify.path,
    serve(endpoints.verify, door, ({ body }) => bundleService.verify(body)),
  );
  router.post(
    endpoints.previewBundle.path,
    serve(endpoints.previewBundle, door, async ({ ctx }) =>
      bundleService.preview(await readUpload(ctx, zipLimits.mostBytes)),
    ),
  );
  router.post(
    endpoints.importBundle.path,
    serve(endpoints.importBundle, door, async ({ ctx }) =>
      bundleService.importBundle(await readUpload(ctx, zipLimits.mostBytes)),
    ),
  );
}
