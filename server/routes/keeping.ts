import { Readable } from "node:stream";
import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";
import { writeStore } from "../keeping/storeFile.ts";

/** The store as a whole. */
export function routeKeeping(
  router: Router,
  { auth, database, settings, clock, keeper, reportService, restoredService }: Services,
) {
  router.get(
    endpoints.backups.path,
    serve(endpoints.backups, auth, () => keeper.read()),
  );
  router.post(
    endpoints.backUp.path,
    serve(endpoints.backUp, auth, () => {
      // It may take minutes; how it goes is asked for.
      void keeper.run();
      return keeper.read();
    }),
  );
  router.get(
    endpoints.restored.path,
    serve(endpoints.restored, auth, async () => ({ restored: await restoredService.read() })),
  );
  router.post(
    endpoints.release.path,
    serve(endpoints.release, auth, async ({ user, body }) => ({
      restored: await restoredService.release(user.id, body.due),
    })),
  );
  router.post(
    endpoints.giveUpPhotos.path,
    serve(endpoints.giveUpPhotos, auth, async ({ user }) => ({ restored: await restoredService.giveUpPhotos(user) })),
  );
  router.post(
    endpoints.missingEntries.path,
    serve(endpoints.missingEntries, auth, async ({ body }) => ({
      missing: await restoredService.listMissing(body.ids),
    })),
  );
  router.get(
    endpoints.reports.path,
    serve(endpoints.reports, auth, () => reportService.read()),
  );
  router.get(
    endpoints.everything.path,
    serve(endpoints.everything, auth, async ({ ctx }) => {
      const { store } = await settings.read();
      ctx.type = "application/x-ndjson";
      ctx.set("Content-Disposition", `attachment; filename="store-${clock.today()}.ndjson"`);
      ctx.body = Readable.from(writeStore(database, { store, at: clock.now() }));
      return undefined;
    }),
  );
}
