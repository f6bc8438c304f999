import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

/** What the store holds of its buyers, and how long. */
export function routeBuyers(router: Router, { auth, buyerService, retentionService }: Services) {
  router.get(
    endpoints.buyer.path,
    serve(endpoints.buyer, auth, ({ params }) => buyerService.read(params.delivery, params.person)),
  );
  router.get(
    endpoints.buyerFile.path,
    serve(endpoints.buyerFile, auth, async ({ params, ctx }) => {
      ctx.body = await buyerService.writeFile(params.delivery, params.person);
      ctx.type = "application/zip";
      // Without the name: a file's name is seen by whoever looks over a shoulder.
      ctx.set("Content-Disposition", `attachment; filename="buyer-${params.delivery}.zip"`);
      return undefined;
    }),
  );
  router.post(
    endpoints.forgetBuyer.path,
    serve(endpoints.forgetBuyer, auth, ({ params, body, user }) =>
      buyerService.forget(params.delivery, params.person, user.id, body),
    ),
  );
  router.get(
    endpoints.retention.path,
    serve(endpoints.retention, auth, () => retentionService.read()),
  );
  router.put(
    endpoints.setRetention.path,
    serve(endpoints.setRetention, auth, async ({ body }) => {
      await retentionService.setRules(body);
      return { done: true as const };
    }),
  );
}
