import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { owners } from "../roles.ts";
import { none } from "./shared.ts";

/** The store as a whole: what is taken along. */
export const keepingEndpoints = {
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
