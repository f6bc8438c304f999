import { z } from "zod";
import { plainText } from "../../core/rig/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { buyerSheetSchema, forgottenSheetSchema, retentionRulesSchema, retentionSheetSchema } from "../buyerSchemas.ts";
import { endpoint } from "../endpoint.ts";
import { owners } from "../roles.ts";
import { done, none, oneDelivery } from "./shared.ts";

const oneBuyer = oneDelivery.extend({ person: recordIdSchema });

/** What the store holds of its buyers: taken along, forgotten, and how long it is kept. */
export const buyerEndpoints = {
  buyer: endpoint({
    ...addresses.buyer,
    summary: "What this store holds of one buyer, over all handovers and boats, counted",
    admits: owners,
    params: oneBuyer,
    query: none,
    body: null,
    answer: buyerSheetSchema,
  }),
  buyerFile: endpoint({
    ...addresses.buyerFile,
    summary: "Everything of one buyer as a zip: `buyer.json` (ravik.buyer/1), each handover, the photos",
    admits: owners,
    audit: "opened",
    params: oneBuyer,
    query: none,
    body: null,
    answer: null,
    file: "application/zip",
  }),
  forgetBuyer: endpoint({
    ...addresses.forgetBuyer,
    summary: "Forget a buyer: name, signatures, messages, contact, photos; sealed records keep hashes and say so",
    admits: owners,
    audit: "boats",
    params: oneBuyer,
    query: none,
    body: z.strictObject({
      deliveries: z.array(recordIdSchema).min(1).max(200),
      photos: z.boolean(),
      /** How they are reached, their gear's dates and their car, of the boats that are theirs. */
      contact: z.boolean(),
      reason: plainText(500),
    }),
    answer: forgottenSheetSchema,
  }),
  retention: endpoint({
    ...addresses.retention,
    summary: "How long data is kept, and which buyers have not been heard from for longer",
    admits: owners,
    params: none,
    query: none,
    body: null,
    answer: retentionSheetSchema,
  }),
  setRetention: endpoint({
    ...addresses.setRetention,
    summary: "Change how long data is kept; older data goes the next night",
    admits: owners,
    audit: "settings",
    params: none,
    query: none,
    body: retentionRulesSchema,
    answer: done,
  }),
} as const;
