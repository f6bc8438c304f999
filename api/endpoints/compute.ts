import { z } from "zod";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { everyone } from "../roles.ts";
import { none } from "./shared.ts";

const oneContract = z.strictObject({ name: z.string().max(60) });

/** The calculations of core. */
export const computeEndpoints = {
  computeList: endpoint({
    ...addresses.computeList,
    summary: "Names of the calculations that can be asked for",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ names: z.array(z.string()) }),
  }),
  computeSchema: endpoint({
    ...addresses.computeSchema,
    summary: "JSON Schema of a calculation's input",
    admits: everyone,
    params: oneContract,
    query: none,
    body: null,
    answer: z.record(z.string(), z.unknown()),
  }),
  compute: endpoint({
    ...addresses.compute,
    summary: "Run a calculation",
    admits: everyone,
    params: oneContract,
    query: none,
    body: z.unknown(),
    answer: z.unknown(),
  }),
} as const;
