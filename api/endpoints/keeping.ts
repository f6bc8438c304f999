import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { backupSheetSchema } from "../keepingSchemas.ts";
import { reportSheetSchema } from "../reportSchemas.ts";
import { keepers, owners } from "../roles.ts";
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
