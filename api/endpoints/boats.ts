import { z } from "zod";
import { boatSorts, boatStages } from "../../core/care/index.ts";
import { rigSchema } from "../../core/rig/index.ts";
import { lineText } from "../../core/text/lineText.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { describers, everyone, sellers } from "../roles.ts";
import {
  boatRowSchema,
  boatSchema,
  colorSchema,
  newBoatSchema,
  rigSheetSchema,
  savedRigSchema,
  stockBoatSchema,
  stockNumberSchema,
  templateLineSchema,
} from "../schemas.ts";
import { done, none, oneBoat } from "./shared.ts";

const oneTemplate = z.strictObject({ template: recordIdSchema });

/** Boats, their rigs, hours and services. */
export const boatsEndpoints = {
  boats: endpoint({
    ...addresses.boats,
    summary:
      "Three hundred boats a page, the next handover first unless `sort` says otherwise; with `find` and `stage` of those they fit",
    admits: everyone,
    params: none,
    query: z.strictObject({
      find: z.string().max(100).default(""),
      stage: z.enum(["all", ...boatStages]).default("all"),
      sort: z.enum(boatSorts).default("next"),
      page: z.coerce.number().int().min(0).max(10_000).default(0),
    }),
    body: null,
    answer: z.strictObject({
      boats: z.array(boatRowSchema),
      boatsFound: z.int(),
      boatsInAll: z.int(),
      /** How many boats of the whole store are at each stage. */
      stages: z.record(z.enum(boatStages), z.int()),
    }),
  }),
  hulls: endpoint({
    ...addresses.hulls,
    summary: "The hull numbers of all boats",
    admits: describers,
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ hulls: z.array(z.string()) }),
  }),
  addBoat: endpoint({
    ...addresses.addBoat,
    summary: "Describe a new boat, from a template, from another boat, or from a rig",
    admits: describers,
    audit: "boats",
    params: none,
    query: none,
    body: newBoatSchema,
    answer: z.strictObject({ boat: recordIdSchema }),
  }),
  setStock: endpoint({
    ...addresses.setStock,
    summary: "What the yard calls a boat: its stock number and color",
    admits: describers,
    audit: "boats",
    params: oneBoat,
    query: none,
    body: z.strictObject({ stock: stockNumberSchema, color: colorSchema }),
    answer: done,
  }),
  importBoats: endpoint({
    ...addresses.importBoats,
    summary: "Add boats of a stock list; those the store has already are left as they are",
    admits: sellers,
    audit: "boats",
    params: none,
    query: none,
    body: z.strictObject({ boats: z.array(stockBoatSchema).min(1).max(500) }),
    answer: z.strictObject({ added: z.int(), known: z.int() }),
  }),
  boat: endpoint({
    ...addresses.boat,
    summary: "One boat: rig, break-in, service, hours, what is owed",
    admits: everyone,
    params: oneBoat,
    query: none,
    body: null,
    answer: boatSchema,
  }),
  rig: endpoint({
    ...addresses.rig,
    summary: "A boat's rig, and the template it was described from",
    admits: everyone,
    params: oneBoat,
    query: none,
    body: null,
    answer: rigSheetSchema,
  }),
  setRig: endpoint({
    ...addresses.setRig,
    summary: "Save a rig; refused when somebody has saved it since",
    admits: describers,
    audit: "boats",
    params: oneBoat,
    query: none,
    body: savedRigSchema,
    answer: z.strictObject({ version: z.int() }),
  }),
  templates: endpoint({
    ...addresses.templates,
    summary: "The models boats are described from",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ templates: z.array(templateLineSchema) }),
  }),
  template: endpoint({
    ...addresses.template,
    summary: "One template with its rig",
    admits: everyone,
    params: oneTemplate,
    query: none,
    body: null,
    answer: templateLineSchema.extend({ rig: rigSchema }),
  }),
  setTemplate: endpoint({
    ...addresses.setTemplate,
    summary: "Save a rig as the template of its model",
    admits: describers,
    audit: "boats",
    params: oneTemplate,
    query: none,
    body: z.strictObject({ name: lineText(60), rig: rigSchema }),
    answer: done,
  }),
  removeTemplate: endpoint({
    ...addresses.removeTemplate,
    summary: "Remove a template of the store's own",
    admits: describers,
    audit: "boats",
    params: oneTemplate,
    query: none,
    body: null,
    answer: done,
  }),
} as const;
