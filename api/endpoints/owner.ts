import { z } from "zod";
import { localDateSchema } from "../../core/dates/index.ts";
import { vehicleSchema } from "../../core/tow/index.ts";
import { entrySchema, recordIdSchema, ulidSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { contactSchema } from "../careSchemas.ts";
import { endpoint } from "../endpoint.ts";
import { ownerPageSchema } from "../schemas.ts";
import {
  deviceMsSchema,
  done,
  none,
  oneToken,
  packQuery,
  paperQuery,
  photoAnswer,
  photoTypes,
  tokenSchema,
} from "./shared.ts";

/** The owner's private page. */
export const ownerEndpoints = {
  ownerPage: endpoint({
    ...addresses.ownerPage,
    summary: "An owner's private page",
    admits: "public",
    params: oneToken,
    query: none,
    body: null,
    answer: ownerPageSchema,
  }),
  addOwnerEntries: endpoint({
    ...addresses.addOwnerEntries,
    summary: "What an owner enters on their page: understood, did it, a question, an arrival inspection",
    admits: "public",
    params: oneToken,
    query: none,
    body: z.strictObject({ entries: z.array(entrySchema).min(1).max(200), deviceMs: deviceMsSchema.optional() }),
    answer: z.strictObject({ stored: z.array(ulidSchema), known: z.array(ulidSchema) }),
  }),
  setOwnerVehicle: endpoint({
    ...addresses.setOwnerVehicle,
    summary: "The car an owner tows with, as far as its plates were read",
    admits: "public",
    params: oneToken,
    query: none,
    body: vehicleSchema,
    answer: done,
  }),
  setOwnerDate: endpoint({
    ...addresses.setOwnerDate,
    summary: "Until when a thing aboard or the registration is good, as its owner reads it",
    admits: "public",
    params: oneToken,
    query: none,
    body: z.strictObject({ item: recordIdSchema, until: localDateSchema.nullable() }),
    answer: done,
  }),
  setOwnerContact: endpoint({
    ...addresses.setOwnerContact,
    summary: "How an owner is reached, and whether the yard may write",
    admits: "public",
    params: oneToken,
    query: none,
    body: contactSchema.pick({ phone: true, email: true, optOut: true }),
    answer: done,
  }),
  setOwnerPhoto: endpoint({
    ...addresses.setOwnerPhoto,
    summary: "Keep a photo an owner took",
    admits: "public",
    params: z.strictObject({ token: tokenSchema, photo: recordIdSchema }),
    query: none,
    body: null,
    upload: photoTypes,
    answer: photoAnswer,
  }),
  ownerManifest: endpoint({
    ...addresses.ownerManifest,
    summary: "What makes an owner's page an app of its own on their phone: it starts at their link",
    admits: "public",
    params: oneToken,
    query: none,
    body: null,
    answer: null,
    file: "application/manifest+json",
  }),
  ownerPhoto: endpoint({
    ...addresses.ownerPhoto,
    summary: "A photo of this handover as JPEG",
    admits: "public",
    params: z.strictObject({ token: tokenSchema, photo: recordIdSchema }),
    query: z.strictObject({ size: z.enum(["small", "large"]).default("large") }),
    body: null,
    answer: null,
    file: "image/jpeg",
  }),
  ownerRecordPdf: endpoint({
    ...addresses.ownerRecordPdf,
    summary: "The owner's record as a PDF",
    admits: "public",
    isPaper: true,
    params: oneToken,
    query: paperQuery,
    body: null,
    answer: null,
  }),
  ownerPackPdf: endpoint({
    ...addresses.ownerPackPdf,
    summary: "The owner's pack as a PDF",
    admits: "public",
    isPaper: true,
    params: oneToken,
    query: packQuery,
    body: null,
    answer: null,
  }),
} as const;
