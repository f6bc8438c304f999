import { z } from "zod";
import { sha256Schema } from "../../core/hash/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { everyone, walkers } from "../roles.ts";
import { bundlePreviewSchema, verifiedSchema } from "../schemas.ts";
import { none, oneDelivery } from "./shared.ts";

const bundleTypes = [
  "application/json",
  "application/zip",
  "application/x-zip-compressed",
  "application/octet-stream",
] as const;

/** Sealed handovers on their way in and out. */
export const bundleEndpoints = {
  bundle: endpoint({
    ...addresses.bundle,
    summary: "The sealed handover with its additions (ravik.bundle/1), without photos",
    admits: everyone,
    audit: "opened",
    params: oneDelivery,
    query: none,
    body: null,
    answer: null,
    file: "application/json",
  }),
  bundleZip: endpoint({
    ...addresses.bundleZip,
    summary: "The bundle with its photos",
    admits: everyone,
    audit: "opened",
    params: oneDelivery,
    query: none,
    body: null,
    answer: null,
    file: "application/zip",
  }),
  marksCsv: endpoint({
    ...addresses.marksCsv,
    summary: "The marks of a handover as CSV",
    admits: everyone,
    audit: "opened",
    params: oneDelivery,
    query: none,
    body: null,
    answer: null,
    file: "text/csv",
  }),
  verify: endpoint({
    ...addresses.verify,
    summary: "Whether a handover file is what was sealed, or exactly what differs",
    admits: everyone,
    params: none,
    query: none,
    body: z.unknown(),
    bodyLimit: "5mb",
    answer: verifiedSchema,
  }),
  previewBundle: endpoint({
    ...addresses.previewBundle,
    summary: "What a bundle holds, before it is taken in",
    admits: walkers,
    params: none,
    query: none,
    body: null,
    upload: bundleTypes,
    answer: bundlePreviewSchema,
  }),
  importBundle: endpoint({
    ...addresses.importBundle,
    summary: "Import a sealed handover of another store; all of it or nothing",
    admits: walkers,
    audit: "boats",
    params: none,
    /** `trust`: the key of a store not known here, which somebody has looked at. */
    query: z.strictObject({ trust: sha256Schema.optional() }),
    body: null,
    upload: bundleTypes,
    answer: z.strictObject({ delivery: recordIdSchema, boat: recordIdSchema }),
  }),
} as const;
