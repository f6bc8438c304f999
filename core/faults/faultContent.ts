import { z } from "zod";
import { conditionSchema, partKinds, plainText, stationKinds } from "../rig/index.ts";
import { topicIdSchema } from "../topic/index.ts";

const idSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");

/** What a kind of component there is one of: the boat, each engine, battery, battery switch, breaker, panel switch or load. */
export const faultScopes = ["boat", "engine", "battery", "battery-switch", "breaker", "panel", "load"] as const;

/** Who mends it: whoever is aboard; the yard; somebody with the training or licence for it; the engine's maker. */
export const faultMenders = ["owner", "yard", "technician", "maker"] as const;
export type FaultMender = (typeof faultMenders)[number];

/** A kind of component that fails: how it is looked at, as a question whose "yes" means that it is good, and how it is mended. */
export const faultKindSchema = z.strictObject({
  id: idSchema,
  /** `{label}` is the name of the thing it is of. */
  label: plainText(80),
  per: z.enum(faultScopes),
  check: plainText(240),
  mend: plainText(300),
  /** How often it is at fault among calls about what needs it, before anything is known. Ours, until a store's calls say better. */
  prior: z.number().gt(0).lt(1),
  minutes: z.number().positive().max(60),
  who: z.enum(faultMenders),
  /** The yard alone may look: something can start, spark or burn meanwhile. Without it, whoever is aboard. */
  lookBy: z.literal("yard").optional(),
  /** The kind of part it is at. */
  of: z.enum(partKinds).optional(),
  when: conditionSchema.optional(),
  /** The topics that teach it, the closest first: a call about it counts for the first that the boat has. */
  topics: z.array(topicIdSchema).min(1).max(4),
  /** Only of engines with a starter. */
  electric: z.boolean().optional(),
  /** Said before the look. */
  caution: plainText(200).optional(),
  place: plainText(60).optional(),
});

/** Something that works or does not, and the kinds of component it needs. */
export const faultFunctionSchema = z.strictObject({
  id: idSchema,
  label: plainText(80),
  asks: plainText(160),
  /** Said before it is tried. */
  caution: plainText(200).optional(),
  per: z.enum(["boat", "engine"]),
  needs: z.array(idSchema).max(40),
  when: conditionSchema.optional(),
  /** Only of engines with a starter. */
  electric: z.boolean().optional(),
  /** The loads that run it, by what they serve: their breaker, switch, battery and plug are needed too. */
  load: z.enum(partKinds).optional(),
  /** Kinds of station it is thought of at, beside where its parts are. */
  at: z.array(z.enum(stationKinds)).max(4).optional(),
  /** Of those loads, the ones whose name this pattern finds. */
  named: z.string().max(80).optional(),
  /** What people say when it does not. */
  words: z.array(plainText(60)).max(12).optional(),
  /** What else is said by some words: "beeps but won't start" says that the key is heard. Of the same engine. */
  clues: z
    .array(z.strictObject({ says: plainText(40), function: idSchema, works: z.boolean() }))
    .max(12)
    .optional(),
});

/** What comes before any finding out. */
export const urgentSchema = z.strictObject({
  id: idSchema,
  says: plainText(60),
  do: z.array(plainText(200)).min(1).max(8),
  words: z.array(plainText(60)).min(1).max(12),
});

export const faultContentSchema = z
  .strictObject({
    kinds: z.array(faultKindSchema),
    functions: z.array(faultFunctionSchema),
    urgent: z.array(urgentSchema),
  })
  .superRefine(({ kinds, functions }, check) => {
    const named = new Set(functions.map(({ id }) => id));
    functions.forEach(({ clues = [] }, i) => {
      for (const clue of clues)
        if (!named.has(clue.function))
          check.addIssue({
            code: "custom",
            path: ["functions", i, "clues"],
            message: `no function "${clue.function}"`,
          });
    });
    const known = new Set(kinds.map(({ id }) => id));
    functions.forEach(({ needs }, i) => {
      for (const need of needs)
        if (!known.has(need))
          check.addIssue({ code: "custom", path: ["functions", i, "needs"], message: `no kind "${need}"` });
    });
  });
export type FaultContent = z.infer<typeof faultContentSchema>;
export type FaultKind = z.infer<typeof faultKindSchema>;
export type Urgent = z.infer<typeof urgentSchema>;
