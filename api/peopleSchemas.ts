import { z } from "zod";
import { instantSchema } from "../core/dates/index.ts";
import { languageSchema } from "../core/language/index.ts";
import { regionSchema } from "../core/region/index.ts";
import { plainText } from "../core/rig/index.ts";
import { planOptionsSchema } from "../core/route/index.ts";
import { lineText } from "../core/text/lineText.ts";
import { recordIdSchema, roles } from "../core/walk/index.ts";

export const auditKinds = ["sign-in", "staff", "settings", "library", "packs", "boats", "opened"] as const;
export type AuditKind = (typeof auditKinds)[number];

export const loginSchema = z
  .string()
  .trim()
  .min(2, "must have at least two characters")
  .max(80)
  .regex(/^[\p{L}\p{N}._@+-]+$/u, "must be letters, digits, points and hyphens, without spaces");
/** What is asked of it is said by `findWeakness` (server/signIn); here only what can be a password at all. */
export const newPasswordSchema = z.string().min(1).max(200);
export const codeSchema = z.string().trim().min(6).max(40);

const nameRoleSchema = { name: plainText(80), role: z.enum(roles) };

export const zoneSchema = z.string().refine((name) => {
  try {
    return new Intl.DateTimeFormat("en", { timeZone: name }) !== null;
  } catch {
    return false;
  }
}, "must be a time zone such as America/Halifax");

/** Where browsers reach the store: an origin, without a path. */
export const webAddressSchema = z
  .string()
  .trim()
  .refine((text) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol), "must begin with https://")
  .transform((text) => new URL(text).origin);

/** What a store says of itself. */
export const storeFactsSchema = z.strictObject({
  store: lineText(80),
  /** Its postal address, a line each. */
  place: z.string().trim().max(300),
  phone: z.string().trim().max(40),
  /** The photo that stands as its logo on papers and owners' pages, by id. */
  logo: recordIdSchema.nullable(),
  webAddress: webAddressSchema.nullable(),
  timeZone: zoneSchema,
  region: regionSchema,
  /** Nothing is sent from the first hour until the second, of the store's own time. */
  quietHours: z.strictObject({ from: z.int().min(0).max(23), to: z.int().min(0).max(23) }),
  /** Minutes a new plan has, until its own are chosen; null: all there are. */
  usualMin: planOptionsSchema.shape.budgetMin,
  /** Who may let a walk begin on a boat that is not ready. */
  allowers: z
    .array(z.enum(roles))
    .refine((list) => list.includes("owner"), "must hold the owner")
    .refine((list) => new Set(list).size === list.length, "must name each once"),
});
export type StoreFacts = z.infer<typeof storeFactsSchema>;

export const setUpSchema = storeFactsSchema
  .omit({ logo: true, quietHours: true, usualMin: true, allowers: true })
  .extend({
    code: codeSchema,
    name: lineText(80),
    login: loginSchema,
    password: newPasswordSchema,
  });

export const personLineSchema = z.strictObject({
  id: recordIdSchema,
  login: z.string(),
  ...nameRoleSchema,
  isOff: z.boolean(),
  hasSecond: z.boolean(),
  language: languageSchema,
  needsSecond: z.boolean(),
  /** When they last asked for anything; null where they are signed in nowhere. */
  seenAtMs: z.number().nullable(),
});
export type PersonLine = z.infer<typeof personLineSchema>;

export const inviteLineSchema = z.strictObject({
  id: recordIdSchema,
  ...nameRoleSchema,
  /** A new person, or somebody who sets a new password. */
  isReset: z.boolean(),
  endsAtMs: z.number(),
});

export const deviceLineSchema = z.strictObject({
  id: recordIdSchema,
  name: plainText(60),
  by: z.string(),
  at: instantSchema,
  /** The one this is asked from. */
  isThis: z.boolean(),
});

export const staffSheetSchema = z.strictObject({
  people: z.array(personLineSchema),
  invites: z.array(inviteLineSchema),
  devices: z.array(deviceLineSchema),
});
export type StaffSheet = z.infer<typeof staffSheetSchema>;

export const sessionLineSchema = z.strictObject({
  id: recordIdSchema,
  device: z.string(),
  isShared: z.boolean(),
  isThis: z.boolean(),
  beganAtMs: z.number(),
  seenAtMs: z.number(),
});
export type SessionLine = z.infer<typeof sessionLineSchema>;

export const auditLineSchema = z.strictObject({
  number: z.int(),
  at: instantSchema,
  by: z.string(),
  name: z.string(),
  kind: z.enum(auditKinds),
  what: z.string(),
  about: z.string(),
});
export type AuditLine = z.infer<typeof auditLineSchema>;

/** A code told once: to be opened as a link, or read out and typed. */
export const freshCodeSchema = z.strictObject({ code: z.string(), endsAtMs: z.number() });
