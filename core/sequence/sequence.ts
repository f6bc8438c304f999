import { z } from "zod";
import { conditionSchema, plainText } from "../rig/index.ts";
import { topicIdSchema } from "../topic/index.ts";

const idSchema = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, "must be small letters, digits and hyphens");

/** Who does a step: the one who drives car or boat, or the one beside. Alone, one does both. */
export const stepRoles = ["skipper", "helper"] as const;
export type StepRole = (typeof stepRoles)[number];

/** How it is done this time: with how many, and how the boat comes onto its trailer. */
export const stepSetups = ["alone", "partner", "winch", "drive"] as const;
export type StepSetup = (typeof stepSetups)[number];

const stepSchema = z.strictObject({
  id: idSchema,
  by: z.enum(stepRoles),
  say: plainText(240),
  /** What the other one does meanwhile. */
  other: plainText(200).optional(),
  /** How it is seen to be right. */
  proof: plainText(200).optional(),
  /** Said before the step. */
  caution: plainText(240).optional(),
  /** Only when done so; all of them must hold. */
  setup: z.array(z.enum(stepSetups)).min(1).optional(),
  /** What is read at each wheel. */
  asks: z.enum(["tyres", "hubs", "warm-tyres"]).optional(),
  /** At least so long. */
  minutes: z.int().min(1).max(60).optional(),
  topic: topicIdSchema.optional(),
  /** Doing it is having learned this topic by doing. */
  teaches: topicIdSchema.optional(),
  when: conditionSchema.optional(),
});

/** Something done step by step by one or two people, as content writes it for every boat. Words in braces are filled from the rig. */
export const sequenceSchema = z
  .strictObject({
    id: idSchema,
    title: plainText(60),
    lead: plainText(200),
    cautions: z.array(plainText(240)).min(1),
    ways: z.array(z.enum(["alone", "partner"])).min(1),
    methods: z
      .array(z.enum(["winch", "drive"]))
      .min(1)
      .optional(),
    /** Both go by one screen: every step is taken there, whoever does it. */
    isTogether: z.boolean().optional(),
    /** What the two are called, where not skipper and helper. */
    called: z.strictObject({ skipper: plainText(20), helper: plainText(20) }).optional(),
    when: conditionSchema.optional(),
    phases: z
      .array(
        z.strictObject({
          id: idSchema,
          title: plainText(60),
          /** Nobody waits for the other in it: each goes through their own steps. */
          isFree: z.boolean().optional(),
          steps: z.array(stepSchema).min(1),
        }),
      )
      .min(1),
  })
  .superRefine(({ phases }, check) => {
    const seen = new Set<string>();
    for (const { id } of phases.flatMap(({ steps }) => steps)) {
      if (seen.has(id)) check.addIssue({ code: "custom", path: ["phases"], message: `"${id}" is used twice` });
      seen.add(id);
    }
  });
export type Sequence = z.infer<typeof sequenceSchema>;
