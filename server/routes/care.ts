import type Router from "@koa/router";
import type { Context } from "koa";
import { endpoints, type NewRun, ownerAuthor } from "../../api/index.ts";
import { isOwnersPhoto } from "../../core/walk/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import { readLetterhead } from "../pdf/letterhead.ts";

const done = { done: true as const };

function answerFile(ctx: Context, type: string, name: string, body: string | Buffer) {
  ctx.type = type;
  ctx.set("Content-Disposition", `inline; filename="${name}"`);
  ctx.body = body;
  return undefined;
}

/** The months after: hours, runs, services, messages, the workshop, calendars, packs. */
export function routeCare(router: Router, services: Services) {
  for (const route of [routeCareEntries, routeMessages, routeWorkshop, routeCareFiles, routePacks, routeOwnerCare])
    route(router, services);
}

/** Hours, services, runs and fuel, entered and put right. */
function routeCareEntries(router: Router, { auth, careEntryService, runService }: Services) {
  router.post(
    endpoints.addReading.path,
    serve(endpoints.addReading, auth, async ({ params, user, body }) => {
      await careEntryService.addReading(params.boat, user.name, body);
      return done;
    }),
  );
  router.post(
    endpoints.addService.path,
    serve(endpoints.addService, auth, async ({ params, user, body }) => {
      await careEntryService.addService(params.boat, user.name, body);
      return done;
    }),
  );
  router.post(
    endpoints.addRun.path,
    serve(endpoints.addRun, auth, async ({ params, user, body }) => ({
      runs: await careEntryService.addRun(params.boat, user.name, body, "file"),
    })),
  );
  router.post(
    endpoints.addFill.path,
    serve(endpoints.addFill, auth, async ({ params, user, body }) => {
      await careEntryService.addFill(params.boat, user.name, body);
      return done;
    }),
  );
  router.post(
    endpoints.withdraw.path,
    serve(endpoints.withdraw, auth, async ({ params, user, body }) => {
      // Only who may record a service may say that it was not done.
      if (body.kind === "service" && !endpoints.addService.admits.includes(user.role as never))
        throw new Failure("not-allowed");
      await careEntryService.withdraw(params.boat, user.name, body);
      return done;
    }),
  );
  router.get(
    endpoints.run.path,
    serve(endpoints.run, auth, ({ params }) => runService.describe(params.boat, params.run)),
  );
}

/** The call list, and what is written to those on it. */
function routeMessages(router: Router, { auth, aftercareService }: Services) {
  router.put(
    endpoints.setContact.path,
    serve(endpoints.setContact, auth, async ({ params, body }) => {
      await aftercareService.setContact(params.boat, body);
      return done;
    }),
  );
  router.get(
    endpoints.boatMessages.path,
    serve(endpoints.boatMessages, auth, async ({ params }) => ({
      messages: await aftercareService.listMessages(params.boat),
    })),
  );
  router.post(
    endpoints.prepareMessage.path,
    serve(endpoints.prepareMessage, auth, ({ params, user }) =>
      aftercareService.prepare(params.boat, params.message, user.id),
    ),
  );
  router.post(
    endpoints.markSent.path,
    serve(endpoints.markSent, auth, async ({ params }) => {
      await aftercareService.markSent(params.boat, params.message);
      return done;
    }),
  );
  router.get(
    endpoints.allMessages.path,
    serve(endpoints.allMessages, auth, ({ query }) => aftercareService.listPage(query)),
  );
  router.post(
    endpoints.stopMessage.path,
    serve(endpoints.stopMessage, auth, async ({ params }) => {
      await aftercareService.stop(params.boat, params.message);
      return done;
    }),
  );
  router.post(
    endpoints.sendAgain.path,
    serve(endpoints.sendAgain, auth, ({ params, body, user }) =>
      aftercareService.sendAgain(params.boat, params.message, user.id, body.id),
    ),
  );
  router.post(
    endpoints.sendMessage.path,
    serve(endpoints.sendMessage, auth, ({ params, user, body }) => aftercareService.send(params.boat, user.id, body)),
  );
  router.get(
    endpoints.callList.path,
    serve(endpoints.callList, auth, () => aftercareService.describe()),
  );
  router.put(
    endpoints.setMessageTexts.path,
    serve(endpoints.setMessageTexts, auth, async ({ body }) => {
      await aftercareService.setTexts(body.texts);
      return done;
    }),
  );
}

/** The workshop's year and its slots. */
function routeWorkshop(router: Router, { auth, workshopService }: Services) {
  router.get(
    endpoints.workshop.path,
    serve(endpoints.workshop, auth, () => workshopService.describe()),
  );
  router.get(
    endpoints.workshopWeek.path,
    serve(endpoints.workshopWeek, auth, ({ params }) => workshopService.describeWeek(params.begins)),
  );
  router.put(
    endpoints.setWorkshop.path,
    serve(endpoints.setWorkshop, auth, async ({ body }) => {
      await workshopService.setWorkshop(body);
      return done;
    }),
  );
  router.put(
    endpoints.setBooking.path,
    serve(endpoints.setBooking, auth, async ({ params, user, body }) => {
      await workshopService.set({ ...body, id: params.booking }, user.name);
      return done;
    }),
  );
}

/** Calendars, the history, and all of it as files. */
function routeCareFiles(
  router: Router,
  { auth, boatService, calendarService, languageService, settings, photos, press }: Services,
) {
  router.get(
    endpoints.boatCalendar.path,
    serve(endpoints.boatCalendar, auth, async ({ params, ctx }) =>
      answerFile(ctx, "text/calendar", `${params.boat}.ics`, await calendarService.writeBoat(params.boat)),
    ),
  );
  router.get(
    endpoints.historyPdf.path,
    serve(endpoints.historyPdf, auth, async ({ params, query, ctx }) => {
      const boat = await boatService.describe(params.boat);
      const pdf = await press.print({
        kind: "history",
        boat,
        store: await readLetterhead(settings, photos),
        paper: query.paper,
        reader: await languageService.findReader(query.language),
      });
      return answerFile(ctx, "application/pdf", `history-${params.boat}.pdf`, pdf);
    }),
  );
  router.get(
    endpoints.careJson.path,
    serve(endpoints.careJson, auth, async ({ ctx }) =>
      answerFile(ctx, "application/json", "aftercare.json", JSON.stringify(await calendarService.writeJson())),
    ),
  );
  router.get(
    endpoints.careCsv.path,
    serve(endpoints.careCsv, auth, async ({ params, ctx }) =>
      answerFile(ctx, "text/csv", `${params.what}.csv`, await calendarService.writeCsv(params.what)),
    ),
  );
  router.post(
    endpoints.makeFeed.path,
    serve(endpoints.makeFeed, auth, async () => ({ token: await calendarService.makeFeed() })),
  );
  router.get(
    endpoints.feed.path,
    serve(endpoints.feed, auth, async ({ params, ctx }) =>
      answerFile(ctx, "text/calendar", "store.ics", await calendarService.writeFeed(params.token)),
    ),
  );
}

/** Packs, and what an engine gateway has. */
function routePacks(router: Router, { auth, packService, gateway }: Services) {
  router.get(
    endpoints.packs.path,
    serve(endpoints.packs, auth, () => packService.describe()),
  );
  router.put(
    endpoints.setPack.path,
    serve(endpoints.setPack, auth, async ({ params, user, body }) => {
      await packService.set(params.pack, body.kind, body.pack, user.name);
      return done;
    }),
  );
  router.delete(
    endpoints.removePack.path,
    serve(endpoints.removePack, auth, async ({ params }) => {
      await packService.remove(params.pack);
      return done;
    }),
  );
  router.get(
    endpoints.gatewayRuns.path,
    serve(endpoints.gatewayRuns, auth, () => ({ runs: gateway?.list() ?? [] })),
  );
  router.get(
    endpoints.gatewayRun.path,
    serve(endpoints.gatewayRun, auth, ({ params, ctx }) => {
      const text = gateway?.read(params.run) ?? null;
      if (text === null) throw new Failure("not-found", { what: "run", id: params.run });
      return answerFile(ctx, "text/plain", params.run, text);
    }),
  );
}

/** The yard's own gateway is no source of an owner's. */
const ofOwner = (source: NewRun["source"]) => (source === "gateway" ? "file" : source);

/** A photo of the meter that came by an owner's page; another is none of theirs to name. */
function ownPhoto(photo: string | null | undefined) {
  if (photo == null || isOwnersPhoto(photo)) return {};
  throw new Failure("invalid-input", { issues: [{ path: "photo", message: "must be a photo sent by this page" }] });
}

/** What an owner enters on their page. */
function routeOwnerCare(
  router: Router,
  { auth, careEntryService, runService, calendarService, ownerService }: Services,
) {
  router.post(
    endpoints.addOwnerReading.path,
    serve(endpoints.addOwnerReading, auth, async ({ params, body }) => {
      const { boat } = await ownerService.openBoat(params.token);
      await careEntryService.addReading(boat, ownerAuthor, { ...body, ...ownPhoto(body.photo), source: "owner" });
      return done;
    }),
  );
  router.post(
    endpoints.addOwnerRun.path,
    serve(endpoints.addOwnerRun, auth, async ({ params, body }) => {
      const { boat } = await ownerService.openBoat(params.token);
      return {
        runs: await careEntryService.addRun(boat, ownerAuthor, { ...body, source: ofOwner(body.source) }, "owner"),
      };
    }),
  );
  router.post(
    endpoints.addOwnerFill.path,
    serve(endpoints.addOwnerFill, auth, async ({ params, body }) => {
      const { boat } = await ownerService.openBoat(params.token);
      await careEntryService.addFill(boat, ownerAuthor, body);
      return done;
    }),
  );
  router.post(
    endpoints.withdrawOwn.path,
    serve(endpoints.withdrawOwn, auth, async ({ params, body }) => {
      const { boat, since } = await ownerService.openBoat(params.token);
      await careEntryService.withdraw(boat, ownerAuthor, body, { since });
      return done;
    }),
  );
  router.get(
    endpoints.ownerRun.path,
    serve(endpoints.ownerRun, auth, async ({ params }) => {
      const { boat } = await ownerService.openBoat(params.token);
      return runService.describe(boat, params.run);
    }),
  );
  router.get(
    endpoints.ownerCalendar.path,
    serve(endpoints.ownerCalendar, auth, async ({ params, ctx }) => {
      const { boat, ...owner } = await ownerService.openCalendar(params.token);
      return answerFile(ctx, "text/calendar", "boat.ics", await calendarService.writeBoat(boat, owner));
    }),
  );
}
