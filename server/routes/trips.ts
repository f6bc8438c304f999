import type Router from "@koa/router";
import type { Context } from "koa";
import { endpoints } from "../../api/index.ts";
import { gearPacks } from "../../content/index.ts";
import type { Language } from "../../core/language/index.ts";
import { foldAfterSeal, foldWalk } from "../../core/walk/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import { readLetterhead } from "../pdf/letterhead.ts";

/** Float plans to print, and the wind where somebody forecasts it. */
export function routeTrips(router: Router, services: Services) {
  const { auth, forecaster, ownerService } = services;
  router.get(
    endpoints.tripPdf.path,
    serve(endpoints.tripPdf, auth, ({ params, query, ctx }) =>
      answerFloatPlan(services, ctx, params.delivery, params.trip, query),
    ),
  );
  router.get(
    endpoints.ownerTripPdf.path,
    serve(endpoints.ownerTripPdf, auth, async ({ params, query, ctx }) => {
      const { deliveryId } = await ownerService.open(params.token);
      return answerFloatPlan(services, ctx, deliveryId, params.trip, query);
    }),
  );
  router.get(
    endpoints.wind.path,
    serve(endpoints.wind, auth, async ({ query: { date, ...at } }) => {
      const wind = forecaster?.read(at, date) ?? null;
      if (wind === null) throw new Failure("not-found", { what: "forecast", id: date });
      return { wind, source: forecaster!.source };
    }),
  );
}

async function answerFloatPlan(
  { handoverService, press, settings, photos, clock, languageService }: Services,
  ctx: Context,
  id: string,
  trip: string,
  { paper, language }: { readonly paper: "a4" | "letter"; readonly language: Language },
): Promise<undefined> {
  const { rig, boatName, hull, entries, added } = await handoverService.describe(id);
  const later = new Set(added);
  const sealed = entries.filter((entry) => !later.has(entry.id));
  const { trips } =
    added.length === 0
      ? foldWalk(entries)
      : foldAfterSeal(
          sealed,
          entries.filter((entry) => later.has(entry.id)),
        );
  const plan = trips.get(trip)?.plan ?? null;
  if (plan === null) throw new Failure("not-found", { what: "trip", id: trip });
  const pack = gearPacks.find(({ id: each }) => each === plan.gearPack) ?? gearPacks[0]!;
  const store = await readLetterhead(settings, photos);
  const reader = await languageService.findReader(language);
  const { timeZone } = clock;
  ctx.type = "application/pdf";
  ctx.set("Content-Disposition", `inline; filename="float-plan-${trip}.pdf"`);
  ctx.body = await press.print({
    kind: "float-plan",
    question: { plan, rig, boatName, hull, pack, store, paper, reader, today: clock.today(), timeZone },
  });
  return undefined;
}
