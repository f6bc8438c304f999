import { z } from "zod";
import { ulidSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { backupSheetSchema, restoredSheetSchema } from "../keepingSchemas.ts";
import { reportSheetSchema } from "../reportSchemas.ts";
import { everyone, keepers, owners } from "../roles.ts";
import { none } from "./shared.ts";

/** The store as a whole: what is kept of it elsewhere, and what is taken along. */
export const keepingEndpoints = {
  backups: endpoint({
    ...addresses.backups,
    summary: "How the store's backups stand: those that are kept, and why the last try failed",
    admits: owners,
    params: none,
    query: none,
    body: null,
    answer: backupSheetSchema,
  }),
  backUp: endpoint({
    ...addresses.backUp,
    summary: "Make a backup now, beside everything else; how it goes is in the list",
    admits: owners,
    audit: "settings",
    params: none,
    query: none,
    body: none,
    answer: backupSheetSchema,
  }),
  restored: endpoint({
    ...addresses.restored,
    summary:
      "Where the store was put back from a backup: from when, what waits for its owner, which photos are missing",
    admits: owners,
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ restored: restoredSheetSchema.nullable() }),
  }),
  release: endpoint({
    ...addresses.release,
    summary: "After a restore: jobs and messages go on; what fell due by now is done, or left out",
    admits: owners,
    audit: "settings",
    params: none,
    query: none,
    body: z.strictObject({ due: z.enum(["do", "leave-out"]) }),
    answer: z.strictObject({ restored: restoredSheetSchema.nullable() }),
  }),
  giveUpPhotos: endpoint({
    ...addresses.giveUpPhotos,
    summary:
      "After a restore: photos that are missing come no more; what waits for them is sealed without, and says so",
    admits: owners,
    audit: "settings",
    params: none,
    query: none,
    body: none,
    answer: z.strictObject({ restored: restoredSheetSchema.nullable() }),
  }),
  missingEntries: endpoint({
    ...addresses.missingEntries,
    summary: "After a restore: which of the entries that a device holds are not in the store",
    admits: everyone,
    params: none,
    query: none,
    body: z.strictObject({ ids: z.array(ulidSchema).max(5000) }),
    answer: z.strictObject({ missing: z.array(ulidSchema) }),
  }),
  reports: endpoint({
    ...addresses.reports,
    summary: "What twelve months have taught: minutes, what is put off, musts not done, first services, break-ins",
    admits: keepers,
    params: none,
    query: none,
    body: null,
    answer: reportSheetSchema,
  }),
  everything: endpoint({
    ...addresses.everything,
    summary: "Everything this store holds as one open file (ravik.store/1, a line of JSON for each thing), photos too",
    admits: owners,
    audit: "opened",
    params: none,
    query: none,
    body: null,
    answer: null,
    file: "application/x-ndjson",
  }),
} as const;
