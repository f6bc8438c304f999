import { z } from "zod";
import { walkWishesSchema } from "../core/route/index.ts";
import { entrySchema, recordIdSchema, ulidSchema } from "../core/walk/index.ts";
import { addresses } from "./addresses.ts";
import { endpoint, everyone } from "./endpoint.ts";
import {
  boatRowSchema,
  boatSchema,
  deliverySchema,
  meSchema,
  newReadingSchema,
  newServiceSchema,
  planComparisonSchema,
  sealSchema,
  todaySchema,
} from "./schemas.ts";

const none = z.strictObject({});
const oneDelivery = z.strictObject({ delivery: recordIdSchema });
const oneBoat = z.strictObject({ boat: recordIdSchema });
const oneContract = z.strictObject({ name: z.string().max(60) });
const done = z.strictObject({ done: z.literal(true) });

/** Everything the server answers, once. */
export const endpoints = {
  health: endpoint({
    ...addresses.health,
    summary: "Whether the server and its database are ready",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({
      ready: z.boolean(),
      version: z.string(),
      database: z.strictObject({ open: z.boolean(), migrations: z.int() }),
    }),
  }),
  signInOptions: endpoint({
    ...addresses.signInOptions,
    summary: "The store's name and, in demo mode only, the demo accounts",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({
      store: z.string(),
      demo: z
        .array(z.strictObject({ login: z.string(), password: z.string(), name: z.string(), role: z.string() }))
        .nullable(),
    }),
  }),
  signIn: endpoint({
    ...addresses.signIn,
    summary: "Begin a session",
    admits: "public",
    params: none,
    query: none,
    body: z.strictObject({ login: z.string().min(1).max(80), password: z.string().min(1).max(200) }),
    answer: meSchema,
  }),
  signOut: endpoint({
    ...addresses.signOut,
    summary: "End this session",
    admits: everyone,
    params: none,
    query: none,
    body: none,
    answer: done,
  }),
  me: endpoint({
    ...addresses.me,
    summary: "Who is signed in",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: meSchema,
  }),
  openapi: endpoint({
    ...addresses.openapi,
    summary: "This list as OpenAPI 3.1",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: z.record(z.string(), z.unknown()),
  }),
  today: endpoint({
    ...addresses.today,
    summary: "Today's handovers, what is owed, what falls due soon",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: todaySchema,
  }),
  boats: endpoint({
    ...addresses.boats,
    summary: "All boats, the next handover first",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ boats: z.array(boatRowSchema) }),
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
  addReading: endpoint({
    ...addresses.addReading,
    summary: "Add an engine-hour reading",
    admits: everyone,
    params: oneBoat,
    query: none,
    body: newReadingSchema,
    answer: done,
  }),
  addService: endpoint({
    ...addresses.addService,
    summary: "Record a service item as done",
    admits: ["owner", "technician", "service"],
    params: oneBoat,
    query: none,
    body: newServiceSchema,
    answer: done,
  }),
  delivery: endpoint({
    ...addresses.delivery,
    summary: "All a walk needs: rig, plan, topics, entries, seal",
    admits: everyone,
    params: oneDelivery,
    query: none,
    body: null,
    answer: deliverySchema,
  }),
  plans: endpoint({
    ...addresses.plans,
    summary: "The route styles compared for this boat, these people and this time",
    admits: everyone,
    params: oneDelivery,
    query: none,
    body: null,
    answer: z.strictObject({ plans: z.array(planComparisonSchema) }),
  }),
  setPlan: endpoint({
    ...addresses.setPlan,
    summary: "Plan a handover: style, minutes there are, who comes, where the boat is, order by hand",
    admits: ["owner", "sales", "delivery"],
    params: oneDelivery,
    query: none,
    body: walkWishesSchema,
    answer: done,
  }),
  addEntries: endpoint({
    ...addresses.addEntries,
    summary: "Store entries; each once, however often it is sent. All or none",
    admits: everyone,
    params: oneDelivery,
    query: none,
    body: z.strictObject({ entries: z.array(entrySchema).min(1).max(500) }),
    answer: z.strictObject({ stored: z.array(ulidSchema), known: z.array(ulidSchema) }),
  }),
  seal: endpoint({
    ...addresses.seal,
    summary: "Close and seal the handover",
    admits: ["owner", "sales", "delivery"],
    params: oneDelivery,
    query: none,
    body: none,
    answer: sealSchema,
  }),
  recordPdf: endpoint({
    ...addresses.recordPdf,
    summary: "The record as a PDF",
    admits: everyone,
    params: oneDelivery,
    query: z.strictObject({ paper: z.enum(["a4", "letter"]).default("letter") }),
    body: null,
    answer: null,
  }),
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

export type Endpoints = typeof endpoints;
export type EndpointName = keyof Endpoints;
