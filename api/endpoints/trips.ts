import { z } from "zod";
import { localDateSchema } from "../../core/dates/index.ts";
import { tripPlanSchema, windSources } from "../../core/trip/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { everyone } from "../roles.ts";
import { none, paperQuery, tokenSchema } from "./shared.ts";

/** Days out. */
export const tripEndpoints = {
  tripPdf: endpoint({
    ...addresses.tripPdf,
    summary: "The float plan of a trip, to leave ashore, as a PDF",
    admits: everyone,
    isPaper: true,
    params: z.strictObject({ delivery: recordIdSchema, trip: recordIdSchema }),
    query: paperQuery,
    body: null,
    answer: null,
  }),
  ownerTripPdf: endpoint({
    ...addresses.ownerTripPdf,
    summary: "The float plan of an owner's trip as a PDF",
    admits: "public",
    isPaper: true,
    params: z.strictObject({ token: tokenSchema, trip: recordIdSchema }),
    query: paperQuery,
    body: null,
    answer: null,
  }),
  wind: endpoint({
    ...addresses.wind,
    summary:
      "The wind forecast at a place for a day, from whatever service there is; the demo has one that makes it up",
    admits: "public",
    params: none,
    query: z.strictObject({
      lat: z.coerce.number().min(-90).max(90),
      lon: z.coerce.number().min(-180).max(180),
      date: localDateSchema,
    }),
    body: null,
    answer: z.strictObject({
      wind: tripPlanSchema.shape.wind,
      source: z.enum(windSources),
    }),
  }),
};
