import { z } from "zod";
import { measureKinds } from "../measure/index.ts";
import { conditionSchema } from "../rig/condition.ts";
import { partKinds, plainText, stationKinds } from "../rig/rig.ts";
import { systems } from "./systems.ts";

/** The moments of a day on the water, in order: what the route style "day in the life" follows. */
export const moments = [
  "arrive",
  "hitch",
  "tow",
  "ramp",
  "power-up",
  "start",
  "run",
  "anchor",
  "dock",
  "load",
  "flush",
  "store",
] as const;

/** How far a topic is to be taken: told, shown, or done by the buyer's own hands. */
export const levels = ["told", "shown", "done"] as const;

export const topicIdSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");

/** Where a topic can be taught at all: anywhere, with cooling water (afloat or on a hose), afloat, or out of the water. */
export const settings = ["any", "cooling", "afloat", "ashore"] as const;

/** One of the ways practitioners teach the same thing, with what it gains and costs. Its words stand in for the topic's. */
export const schoolSchema = z.strictObject({
  id: topicIdSchema,
  name: plainText(60),
  say: plainText(400),
  show: plainText(400).optional(),
  does: plainText(400).optional(),
  tradeOff: plainText(300),
});
export type School = z.infer<typeof schoolSchema>;

/**
 * One thing taught in a walk. Words are for the ear: short sentences in the trade's terms. Words may name what the boat
 * itself says, in braces: `{at:extinguisher}` is how to reach it, `{each:battery}` all of them, `{rig:trailer.tyreKpa}` a
 * figure of the rig with its unit, `{amount:100 L}` an amount in the store's units (fillTopic).
 */
export const topicSchema = z.strictObject({
  id: topicIdSchema,
  /** Topics that were merged into it: what names one of them means this one (`followMerges`). */
  was: z.array(topicIdSchema).min(1).max(12).optional(),
  title: plainText(80),
  system: z.enum(systems),
  /** Kinds of station it is told at, the preferred first. */
  where: z.array(z.enum(stationKinds)).min(1),
  /** The kind of part it is about: told at that part's station, where the boat has one. */
  of: z.enum(partKinds).optional(),
  when: conditionSchema,
  /** Left out: anywhere. */
  asks: z.enum(settings).optional(),
  must: z.boolean(),
  level: z.enum(levels),
  /** What it takes one first-time buyer, as reckonMinutes says it or as the store knows better. */
  minutes: z.number().min(0.25).max(30),
  /** Minutes of moving hands, where they are not the usual ones of its level: a cover to fit, a page to find. */
  hands: z.number().min(0).max(30).optional(),
  /** Minutes of one person's own doing, where it is more or less than usual. */
  doing: z.number().min(0).max(30).optional(),
  /** Topics that must be told before, where this boat has them. */
  after: z.array(topicIdSchema),
  moment: z.enum(moments),
  /** Part of the tour of hatches, seats and lockers. */
  storage: z.boolean(),
  /** How much each minute of it matters: 1 nice to have … 9 life, engine or boat depends on it. */
  value: z.int().min(1).max(9),
  why: plainText(300),
  say: plainText(400),
  show: plainText(400),
  does: plainText(400),
  cautions: z.array(plainText(300)).max(4),
  wrong: plainText(400),
  /** What is read off the boat while it is told. */
  measures: z
    .array(z.enum([...measureKinds, "hours"]))
    .max(3)
    .optional(),
  /** The first is the default. */
  schools: z.array(schoolSchema).min(2).max(4).optional(),
  /** The school whose words stand in the topic, once one was chosen. */
  school: z.strictObject({ id: topicIdSchema, name: plainText(60), tradeOff: plainText(300) }).optional(),
});

export type Topic = z.infer<typeof topicSchema>;

/** What braces are filled with has the length the boat gives it: eight batteries with their places, or nothing at all. */
export const filledText = plainText(20_000).or(z.literal(""));

/** A topic as it is told on one boat (`fillTopic`). */
export const toldTopicSchema = topicSchema.extend({
  why: filledText,
  say: filledText,
  show: filledText,
  does: filledText,
  cautions: z.array(filledText).max(4),
  wrong: filledText,
});

/** A whole library: ids used once, `after` known and without a circle left for the route to find. */
export const librarySchema = z.array(topicSchema).superRefine((topics, check) => {
  const ids = new Set<string>();
  topics.forEach((topic, i) => {
    if (ids.has(topic.id)) check.addIssue({ code: "custom", path: [i, "id"], message: `"${topic.id}" is used twice` });
    ids.add(topic.id);
  });
  topics.forEach((topic, i) => {
    topic.was?.forEach((id, j) => {
      if (ids.has(id))
        check.addIssue({ code: "custom", path: [i, "was", j], message: `"${id}" is a topic or was merged already` });
      ids.add(id);
    });
  });
  const known = new Set(topics.map(({ id }) => id));
  topics.forEach((topic, i) => {
    topic.after.forEach((id, j) => {
      if (!known.has(id)) check.addIssue({ code: "custom", path: [i, "after", j], message: `no topic "${id}"` });
    });
  });
});
