import type Router from "@koa/router";
import type { Context } from "koa";
import { appIcons, endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import { answerPhoto, keepPhoto } from "./photos.ts";
import { printRecord } from "./printRecord.ts";

/** An app of their own: it starts at their link, and leaves it for nothing else. */
const createOwnerManifest = (token: string, boatName: string, store: string) => ({
  id: `/o/${token}`,
  start_url: `/o/${token}`,
  scope: `/o/${token}`,
  name: `${boatName}, ${store}`,
  short_name: boatName,
  description: "Cards, what is due and what to do when something does not work.",
  display: "standalone",
  theme_color: "#FBFAF6",
  background_color: "#FBFAF6",
  icons: appIcons,
});

/** The owner's private page: no sign-in, the token in the address opens it and nothing else. */
export function routeOwner(router: Router, services: Services) {
  const { auth, ownerService, handoverService, photos } = services;
  router.get(
    endpoints.ownerPage.path,
    serve(endpoints.ownerPage, auth, ({ params }) => ownerService.describe(params.token)),
  );
  router.get(
    endpoints.ownerManifest.path,
    serve(endpoints.ownerManifest, auth, async ({ params, ctx }) => {
      const { boatName, store } = await ownerService.describeApp(params.token);
      ctx.type = "application/manifest+json";
      ctx.body = JSON.stringify(createOwnerManifest(params.token, boatName, store));
      return undefined;
    }),
  );
  router.post(
    endpoints.addOwnerEntries.path,
    serve(endpoints.addOwnerEntries, auth, ({ params, body }) =>
      ownerService.addEntries(params.token, body.entries, body.deviceMs),
    ),
  );
  router.put(
    endpoints.setOwnerVehicle.path,
    serve(endpoints.setOwnerVehicle, auth, async ({ params, body }) => {
      await services.towingService.setVehicle((await ownerService.openBoat(params.token)).boat, body);
      return { done: true as const };
    }),
  );
  router.put(
    endpoints.setOwnerDate.path,
    serve(endpoints.setOwnerDate, auth, async ({ params, body }) => {
      await ownerService.setDate(params.token, body);
      return { done: true as const };
    }),
  );
  router.put(
    endpoints.setOwnerContact.path,
    serve(endpoints.setOwnerContact, auth, async ({ params, body }) => {
      await ownerService.setContact(params.token, body);
      return { done: true as const };
    }),
  );
  router.put(
    endpoints.setOwnerPhoto.path,
    serve(endpoints.setOwnerPhoto, auth, async ({ params, ctx }) => {
      await ownerService.open(params.token);
      return keepPhoto(services, ctx, params.photo, "owner");
    }),
  );
  router.get(
    endpoints.ownerPhoto.path,
    serve(endpoints.ownerPhoto, auth, async ({ params, query, ctx }) => {
      if (!(await ownerService.mayRead(params.token, params.photo)))
        throw new Failure("not-found", { what: "photo", id: params.photo });
      answerPhoto(ctx, params.photo, await photos.find(params.photo, query.size));
      return undefined;
    }),
  );
  router.get(
    endpoints.packPdf.path,
    serve(endpoints.packPdf, auth, ({ params, query, ctx }) => answerPack(services, ctx, params.delivery, query)),
  );
  router.post(
    endpoints.labelledPack.path,
    serve(endpoints.labelledPack, auth, ({ params, body, ctx }) => answerPack(services, ctx, params.delivery, body)),
  );
  router.get(
    endpoints.ownerPackPdf.path,
    serve(endpoints.ownerPackPdf, auth, async ({ params, query, ctx }) => {
      const { deliveryId } = await ownerService.open(params.token);
      return answerPack(services, ctx, deliveryId, { ...query, token: params.token });
    }),
  );
  router.get(
    endpoints.ownerRecordPdf.path,
    serve(endpoints.ownerRecordPdf, auth, async ({ params, query, ctx }) => {
      const { deliveryId } = await ownerService.open(params.token);
      ctx.type = "application/pdf";
      ctx.set("Content-Disposition", `inline; filename="handover.pdf"`);
      ctx.body = await printRecord(services, await handoverService.describe(deliveryId), query);
      return undefined;
    }),
  );
}

interface PackAsked {
  readonly paper: "a4" | "letter";
  readonly layout: "single" | "two-up";
  readonly token?: string | undefined;
}

async function answerPack({ ownerService, press }: Services, ctx: Context, delivery: string, asked: PackAsked) {
  const { paper, layout, token } = asked;
  const pack = await ownerService.describePack(delivery, token);
  ctx.type = "application/pdf";
  ctx.set("Content-Disposition", `inline; filename="owner-pack-${delivery}.pdf"`);
  ctx.body = await press.print({ kind: "pack", question: { ...pack, paper, layout } });
  return undefined;
}
