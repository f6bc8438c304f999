import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

export function routeDeliveries(router: Router, { door, handoverDesk, settings, clock }: Services) {
  router.get(
    endpoints.delivery.path,
    serve(endpoints.delivery, door, ({ params }) => handoverDesk.describe(params.delivery)),
  );
  router.post(
    endpoints.addDelivery.path,
    serve(endpoints.addDelivery, door, async ({ body }) => ({ delivery: await handoverDesk.add(body) })),
  );
  router.get(
    endpoints.plans.path,
    serve(endpoints.plans, door, async ({ params }) => ({ plans: await handoverDesk.compareStyles(params.delivery) })),
  );
  router.put(
    endpoints.setPlan.path,
    serve(endpoints.setPlan, door, async ({ params, body }) => {
      await handoverDesk.setPlan(params.delivery, body);
      return { done: true as const };
    }),
  );
  router.post(
    endpoints.addEntries.path,
    serve(endpoints.addEntries, door, ({ params, user, body }) =>
      handoverDesk.addEntries(params.delivery, user, body.entries),
    ),
  );
  router.post(
    endpoints.seal.path,
    serve(endpoints.seal, door, ({ params, user }) => handoverDesk.seal(params.delivery, user)),
  );
  router.get(
    endpoints.recordPdf.path,
    serve(endpoints.recordPdf, door, async ({ params, query, ctx }) => {
      // The printer and its fonts take long to load and are seldom wanted: not at the start, but when first asked for.
      const { writeRecordPdf } = await import("../pdf/recordPdf.ts");
      const delivery = await handoverDesk.describe(params.delivery);
      ctx.type = "application/pdf";
      ctx.set("Content-Disposition", `inline; filename="handover-${delivery.id}.pdf"`);
      ctx.body = await writeRecordPdf(delivery, await settings.read(), {
        paper: query.paper,
        timeZone: clock.timeZone,
      });
      return undefined;
    }),
  );
  router.get(
    endpoints.planPdf.path,
    serve(endpoints.planPdf, door, async ({ params, query, ctx }) => {
      const { writePlanPdf } = await import("../pdf/planPdf.ts");
      const delivery = await handoverDesk.describe(params.delivery);
      ctx.type = "application/pdf";
      ctx.set("Content-Disposition", `inline; filename="plan-${delivery.id}.pdf"`);
      ctx.body = await writePlanPdf(delivery, await settings.read(), { paper: query.paper });
      return undefined;
    }),
  );
}
