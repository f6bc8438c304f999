import { createHash } from "node:crypto";
import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { fileLimits, tellFile } from "../files.ts";
import { readUpload, serve } from "../http.ts";

/** Files under the ids their devices gave them: kept once however often they are sent, never changed, never run. */
export function routeFiles(router: Router, { auth, files, database, clock }: Services) {
  router.put(
    endpoints.setFile.path,
    serve(endpoints.setFile, auth, async ({ ctx, user, params }) => {
      const bytes = await readUpload(ctx, fileLimits.mostBytes);
      const type = tellFile(bytes);
      await database.inTransaction(async (transaction) => {
        if (await files.has(params.file, transaction)) return;
        const sha256 = createHash("sha256").update(bytes).digest("hex");
        const at = clock.now();
        await files.add({ id: params.file, type, sha256, bytes, at, by: user.id }, transaction);
      });
      return { file: params.file };
    }),
  );
  router.get(
    endpoints.file.path,
    serve(endpoints.file, auth, async ({ params, ctx }) => {
      const file = await files.find(params.file);
      if (file === null) throw new Failure("not-found", { what: "file", id: params.file });
      ctx.type = file.type;
      // Saved, not opened here: what somebody sent is never shown as a page of this address.
      ctx.set("Content-Disposition", "attachment");
      ctx.set("Cache-Control", "private, no-cache");
      ctx.body = file.bytes;
      return undefined;
    }),
  );
}
