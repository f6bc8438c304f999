import { z } from "zod";
import { conditionSchema, partKinds, plainText, stationKinds } from "../rig/index.ts";

const checkIdSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");

/** One thing the workshop makes sure of before the buyer comes, as content describes it. */
export const readyTopicSchema = z.strictObject({
  id: checkIdSchema,
  title: plainText(80),
  why: plainText(160),
  /** Kinds of station it is done at, the preferred first. */
  where: z.array(z.enum(stationKinds)).min(1),
  /** Done at this part's station, where the boat has one. */
  of: z.enum(partKinds).optional(),
  when: conditionSchema,
  /** An engine is run for it: how many minutes is asked. */
  asksMinutes: z.boolean().optional(),
  caution: plainText(200).optional(),
});
export type ReadyTopic = z.infer<typeof readyTopicSchema>;

/** A check of one boat's make-ready. Those of the panel are made from its rig. */
export const readyCheckSchema = z.strictObject({
  id: checkIdSchema,
  title: plainText(120),
  why: plainText(160),
  station: checkIdSchema,
  /** The panel switch it tries; null of every other check. */
  switch: checkIdSchema.nullable(),
  asksMinutes: z.boolean(),
  caution: plainText(200).nullable(),
});
export type ReadyCheck = z.infer<typeof readyCheckSchema>;
