import { z } from "zod";
import { instantSchema } from "../../core/dates/index.ts";
import { sha256Schema } from "../../core/hash/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { storeFactsSchema } from "../peopleSchemas.ts";
import { everyone, owners } from "../roles.ts";
import { meSchema, todaySchema } from "../schemas.ts";
import { done, none } from "./shared.ts";

/** The store, signing in and the day. */
export const storeEndpoints = {
  health: endpoint({
    ...addresses.health,
    summary:
      "Whether the server and its database are ready, and can store; to the owner also how disk and backups stand",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({
      ready: z.boolean(),
      version: z.string(),
      database: z.strictObject({
        open: z.boolean(),
        migrations: z.int(),
        /** Why nothing can be stored just now; null while it can. */
        fault: z.enum(["full", "read-only", "gone", "faulty"]).nullable(),
      }),
      /** What the server was to do by itself and could not, however often it tried. */
      jobs: z.strictObject({ failed: z.int() }),
      /** To the owner alone; null to everybody else. */
      details: z
        .strictObject({
          disk: z.strictObject({ freeBytes: z.number(), totalBytes: z.number() }).nullable(),
          backup: z.strictObject({
            folder: z.string().nullable(),
            lastAt: instantSchema.nullable(),
            ageH: z.number().nullable(),
            failed: z.string().nullable(),
          }),
          /** Jobs and messages wait after a restore. */
          isHeld: z.boolean(),
          /** What is wrong with the store's file, in SQLite's words; null where it is sound. */
          damage: z.string().nullable(),
        })
        .nullable(),
    }),
  }),
  signInOptions: endpoint({
    ...addresses.signInOptions,
    summary:
      "The store's name, whether it is still to be set up, whether this tablet is shared; in demo mode only, the accounts",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({
      store: z.string(),
      /** Nobody has an account yet. */
      isNew: z.boolean(),
      /** The name of this tablet where several people may stay signed in on it. */
      sharedAs: z.string().nullable(),
      /** Whose sessions this tablet holds. */
      held: z.array(recordIdSchema),
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
    body: z.strictObject({
      login: z.string().min(1).max(80),
      password: z.string().min(1).max(200),
      /** Of the second factor, or a recovery code. */
      code: z.string().trim().max(40).optional(),
    }),
    answer: meSchema,
  }),
  signOut: endpoint({
    ...addresses.signOut,
    summary: "End this session",
    admits: everyone,
    withoutSecond: true,
    withoutPin: true,
    params: none,
    query: none,
    body: none,
    answer: done,
  }),
  beginPin: endpoint({
    ...addresses.beginPin,
    summary: "Something for a PIN's key to sign, good for a minute",
    admits: everyone,
    withoutSecond: true,
    withoutPin: true,
    params: none,
    query: none,
    body: none,
    answer: z.strictObject({ challenge: z.string() }),
  }),
  openPin: endpoint({
    ...addresses.openPin,
    summary: "Open one's session on a shared tablet by the PIN's key; too many wrong ones end it",
    admits: everyone,
    withoutSecond: true,
    withoutPin: true,
    params: none,
    query: none,
    body: z.strictObject({ challenge: z.string().max(300), proof: z.string().max(200) }),
    answer: z.strictObject({ open: z.string() }),
  }),
  setPin: endpoint({
    ...addresses.setPin,
    summary: "Choose what opens one's session on this tablet: the public half of a PIN's key",
    admits: everyone,
    withoutSecond: true,
    params: none,
    query: none,
    body: z.strictObject({ key: sha256Schema }),
    answer: done,
  }),
  me: endpoint({
    ...addresses.me,
    summary: "Who is signed in",
    admits: everyone,
    withoutSecond: true,
    params: none,
    query: none,
    body: null,
    answer: meSchema,
  }),
  storeFacts: endpoint({
    ...addresses.storeFacts,
    summary: "Read what the store says of itself: name, place, phone, region",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: storeFactsSchema,
  }),
  setStoreFacts: endpoint({
    ...addresses.setStoreFacts,
    summary: "Change what the store says of itself: name, place, phone, address, time zone, region",
    admits: owners,
    audit: "settings",
    params: none,
    query: none,
    body: storeFactsSchema,
    answer: done,
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
    summary:
      "What time it is here, and the store's epoch: another one means that it was put back and lacks what came after",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: z.strictObject({ nowMs: z.number(), epoch: z.string() }),
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
