import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { routeStyles } from "../../core/route/index.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

export function routeDeliveries(router: Router, { door, handoverDesk, deliveries, settings, clock }: Services) {
  router.get(
    endpoints.delivery.path,
    serve(endpoints.delivery, door, ({ params }) => handoverDesk.describe(params.delivery)),
  );
  router.get(
    endpoints.plans.path,
    serve(endpoints.plans, door, async ({ params }) => {
      const { atHand } = await handoverDesk.take(params.delivery);
      const plans = routeStyles.map(({ id, name, line }) => {
        const { moves, moveMin, totalMin } = atHand.plan(id);
        return { style: id, name, line, moves, moveMin, totalMin };
      });
      return { plans };
    }),
  );
  router.put(
    endpoints.chooseStyle.path,
    serve(endpoints.chooseStyle, door, async ({ params, body }) => {
      const { delivery } = await handoverDesk.take(params.delivery);
      if (delivery.summary.state === "signed") throw new Failure("sealed", { delivery: delivery.id });
      await deliveries.setStyle(delivery.id, body.style);
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
}
