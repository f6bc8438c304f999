import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { tellIn } from "../../core/topic/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";
import { readLetterhead } from "../pdf/letterhead.ts";
import { streamNews } from "../streamNews.ts";
import { printRecord } from "./printRecord.ts";

/** What has a delivery for its subject: plan, entries, news, record, owner link. */
export function routeDeliveries(router: Router, services: Services) {
  const {
    auth,
    handoverService,
    ownerService,
    aftercareService,
    messages,
    news,
    press,
    settings,
    photos,
    streams,
    sessions,
  } = services;
  router.get(
    endpoints.delivery.path,
    serve(endpoints.delivery, auth, ({ params }) => handoverService.describe(params.delivery)),
  );
  router.post(
    endpoints.addDelivery.path,
    serve(endpoints.addDelivery, auth, async ({ body }) => ({ delivery: await handoverService.add(body) })),
  );
  router.get(
    endpoints.plans.path,
    serve(endpoints.plans, auth, async ({ params }) => ({
      plans: await handoverService.compareStyles(params.delivery),
    })),
  );
  router.put(
    endpoints.setPlan.path,
    serve(endpoints.setPlan, auth, async ({ params, body }) => {
      await handoverService.setPlan(params.delivery, body);
      return { done: true as const };
    }),
  );
  router.post(
    endpoints.addEntries.path,
    serve(endpoints.addEntries, auth, ({ params, user, body }) =>
      handoverService.addEntries(params.delivery, user, body.entries, {
        deviceMs: body.deviceMs,
        acknowledged: body.acknowledged,
      }),
    ),
  );
  router.get(
    endpoints.news.path,
    serve(endpoints.news, auth, async ({ params, session, ctx }) => {
      // Before anything is read for it: whoever has too many open costs nothing.
      const leave = streams.take(session!.id);
      try {
        await handoverService.get(params.delivery);
      } catch (error) {
        leave();
        throw error;
      }
      streamNews(ctx, (listener) => news.listen(params.delivery, listener), session!, leave, sessions);
      return undefined;
    }),
  );
  router.get(
    endpoints.messages.path,
    serve(endpoints.messages, auth, async ({ params }) => ({ messages: await messages.listOf(params.delivery) })),
  );
  router.post(
    endpoints.setOwnerLink.path,
    serve(endpoints.setOwnerLink, auth, ({ params, user, body }) => ownerService.makeLink(params.delivery, user, body)),
  );
  router.post(
    endpoints.sendRecord.path,
    serve(endpoints.sendRecord, auth, ({ params, user, body }) =>
      aftercareService.sendRecord(params.delivery, user.id, body.id),
    ),
  );
  router.delete(
    endpoints.endOwnerLink.path,
    serve(endpoints.endOwnerLink, auth, async ({ params }) => {
      await ownerService.endLink(params.delivery);
      return { done: true as const };
    }),
  );
  router.get(
    endpoints.recordPdf.path,
    serve(endpoints.recordPdf, auth, async ({ params, query, ctx }) => {
      const delivery = await handoverService.describe(params.delivery);
      ctx.type = "application/pdf";
      ctx.set("Content-Disposition", `inline; filename="handover-${delivery.id}.pdf"`);
      ctx.body = await printRecord(services, delivery, query);
      return undefined;
    }),
  );
  router.get(
    endpoints.planPdf.path,
    serve(endpoints.planPdf, auth, async ({ params, query, ctx }) => {
      const delivery = tellIn(await handoverService.describe(params.delivery), query.language);
      ctx.type = "application/pdf";
      ctx.set("Content-Disposition", `inline; filename="plan-${delivery.id}.pdf"`);
      ctx.body = await press.print({
        kind: "plan",
        delivery,
        store: await readLetterhead(settings, photos),
        paper: query.paper,
        reader: await services.languageService.findReader(query.language),
      });
      return undefined;
    }),
  );
}
