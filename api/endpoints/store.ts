import { z } from "zod";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { everyone } from "../roles.ts";
import { meSchema, todaySchema } from "../schemas.ts";
import { done, none } from "./shared.ts";

/** The store, signing in and the day. */
export const storeEndpoints = {
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
      /** What the server was to do by itself and could not, however often it tried. */
      jobs: z.strictObject({ failed: z.int() }),
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
  clock: endpoint({
    ...addresses.clock,
    summary: "What time it is here, so that a tablet can put its own clock right",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ nowMs: z.number() }),
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
} as const;
