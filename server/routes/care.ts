import type Router from "@koa/router";
import type { Context } from "koa";
import { endpoints } from "../../api/index.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

const done = { done: true as const };

function answerFile(ctx: Context, type: string, name: string, body: string | Buffer) {
  ctx.type = type;
  ctx.set("Content-Disposition", `inline; filename="${name}"`);
  ctx.set("Cache-Control", "no-store");
  ctx.body = body;
  return undefined;
}

/** The months after: hours, runs, services, messages, the workshop, calendars, packs. */
export function routeCare(router: Router, services: Services) {
  const { door, boatDesk, runDesk, aftercareDesk, workshopDesk, calendarDesk, packDesk, gateway, ownerDesk } = services;
  router.post(
    endpoints.addReading.path,
    serve(endpoints.addReading, door, async ({ params, user, body }) => {
      await boatDesk.addReading(params.boat, user.name, body);
      return done;
    }),
  );
  router.post(
    endpoints.addService.path,
    serve(endpoints.addService, door, async ({ params, user, body }) => {
      await boatDesk.addService(params.boat, user, body);
      return done;
    }),
  );
  router.post(
    endpoints.addRun.path,
    serve(endpoints.addRun, door, async ({ params, user, body }) => ({
      runs: await boatDesk.addRun(params.boat, user.name, body, "file"),
    })),
  );
  router.post(
    endpoints.addFill.path,
    serve(endpoints.addFill, door, async ({ params, user, body }) => {
      await boatDesk.addFill(params.boat, user.name, body);
      return done;
    }),
  );
  router.delete(
    endpoints.removeFill.path,
    serve(endpoints.removeFill, door, async ({ params }) => {
      await boatDesk.removeFill(params.boat, params.fill);
      return done;
    }),
  );
  router.get(
    endpoints.run.path,
    serve(endpoints.run, door, ({ params }) => runDesk.describe(params.boat, params.run)),
  );
  router.put(
    endpoints.setContact.path,
    serve(endpoints.setContact, door, async ({ params, body }) => {
      await aftercareDesk.setContact(params.boat, body);
      return done;
    }),
  );
  router.get(
    endpoints.boatMessages.path,
    serve(endpoints.boatMessages, door, async ({ params }) => ({
      messages: await aftercareDesk.listMessages(params.boat),
    })),
  );
  router.post(
    endpoints.sendMessage.path,
    serve(endpoints.sendMessage, door, ({ params, user, body, ctx }) =>
      aftercareDesk.send(params.boat, user.id, body, ctx.origin),
    ),
  );
  router.get(
    endpoints.boatCalendar.path,
    serve(endpoints.boatCalendar, door, async ({ params, ctx }) =>
      answerFile(ctx, "text/calendar", `${params.boat}.ics`, await calendarDesk.writeBoat(params.boat)),
    ),
  );
  router.get(
    endpoints.historyPdf.path,
    serve(endpoints.historyPdf, door, async ({ params, query, ctx }) => {
      const { writeHistoryPdf } = await import("../pdf/historyPdf.ts");
      const pdf = await writeHistoryPdf(
        await boatDesk.describe(params.boat),
        await services.settings.read(),
        query.paper,
      );
      return answerFile(ctx, "application/pdf", `history-${params.boat}.pdf`, pdf);
    }),
  );
  router.get(
    endpoints.careDesk.path,
    serve(endpoints.careDesk, door, () => aftercareDesk.describe()),
  );
  router.put(
    endpoints.setMessageTexts.path,
    serve(endpoints.setMessageTexts, door, async ({ body }) => {
      await aftercareDesk.setTexts(body.texts);
      return done;
    }),
  );
  router.get(
    endpoints.careJson.path,
    serve(endpoints.careJson, door, async ({ ctx }) =>
      answerFile(ctx, "application/json", "aftercare.json", JSON.stringify(await calendarDesk.writeJson())),
    ),
  );
  router.get(
    endpoints.careCsv.path,
    serve(endpoints.careCsv, door, async ({ params, ctx }) =>
      answerFile(ctx, "text/csv", `${params.what}.csv`, await calendarDesk.writeCsv(params.what)),
    ),
  );
  router.get(
    endpoints.workshop.path,
    serve(endpoints.workshop, door, () => workshopDesk.describe()),
  );
  router.put(
    endpoints.setWorkshop.path,
    serve(endpoints.setWorkshop, door, async ({ body }) => {
      await workshopDesk.setWorkshop(body);
      return done;
    }),
  );
  router.put(
    endpoints.setBooking.path,
    serve(endpoints.setBooking, door, async ({ params, user, body }) => {
      await workshopDesk.set({ ...body, id: params.booking }, user.name);
      return done;
    }),
  );
  router.post(
    endpoints.makeFeed.path,
    serve(endpoints.makeFeed, door, async () => ({ token: await calendarDesk.makeFeed() })),
  );
  router.get(
    endpoints.feed.path,
    serve(endpoints.feed, door, async ({ params, ctx }) =>
      answerFile(ctx, "text/calendar", "store.ics", await calendarDesk.writeFeed(params.token)),
    ),
  );
  router.get(
    endpoints.packs.path,
    serve(endpoints.packs, door, () => packDesk.describe()),
  );
  router.put(
    endpoints.setPack.path,
    serve(endpoints.setPack, door, async ({ params, user, body }) => {
      await packDesk.set(params.pack, body.kind, body.pack, user.name);
      return done;
    }),
  );
  router.delete(
    endpoints.removePack.path,
    serve(endpoints.removePack, door, async ({ params }) => {
      await packDesk.remove(params.pack);
      return done;
    }),
  );
  router.get(
    endpoints.gatewayRuns.path,
    serve(endpoints.gatewayRuns, door, () => ({ runs: gateway.list() })),
  );
  router.get(
    endpoints.gatewayRun.path,
    serve(endpoints.gatewayRun, door, ({ params, ctx }) => {
      const text = gateway.read(params.run);
      if (text === null) throw new Failure("not-found", { what: "run", id: params.run });
      return answerFile(ctx, "text/plain", params.run, text);
    }),
  );
  router.post(
    endpoints.addOwnerReading.path,
    serve(endpoints.addOwnerReading, door, async ({ params, body }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      await boatDesk.addReading(boat, ownerName, { ...body, source: "owner" });
      return done;
    }),
  );
  router.post(
    endpoints.addOwnerRun.path,
    serve(endpoints.addOwnerRun, door, async ({ params, body }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      return { runs: await boatDesk.addRun(boat, ownerName, body, "owner") };
    }),
  );
  router.post(
    endpoints.addOwnerFill.path,
    serve(endpoints.addOwnerFill, door, async ({ params, body }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      await boatDesk.addFill(boat, ownerName, body);
      return done;
    }),
  );
  router.delete(
    endpoints.removeOwnerFill.path,
    serve(endpoints.removeOwnerFill, door, async ({ params }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      await boatDesk.removeFill(boat, params.fill);
      return done;
    }),
  );
  router.get(
    endpoints.ownerRun.path,
    serve(endpoints.ownerRun, door, async ({ params }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      return runDesk.describe(boat, params.run);
    }),
  );
  router.get(
    endpoints.ownerCalendar.path,
    serve(endpoints.ownerCalendar, door, async ({ params, ctx }) => {
      const { boat } = await ownerDesk.openBoat(params.token);
      return answerFile(ctx, "text/calendar", "boat.ics", await calendarDesk.writeBoat(boat));
    }),
  );
}

const ownerName = "Owner";
