import { z } from "zod";
import { languageSchema } from "../language/index.ts";
import { type Topic, topicIdSchema } from "../topic/index.ts";
import { chooseLevel, reckonMinutes, speakMinutes, toQuarters } from "./reckonMinutes.ts";
import { styleIdSchema } from "./styles.ts";

export const places = ["trailer", "hard", "afloat", "remote"] as const;

/** Who comes, where the boat stands, and how long there is: what shapes a plan beside the boat itself. */
export const planOptionsSchema = z.strictObject({
  style: styleIdSchema,
  /** Minutes there are; null tells everything. */
  budgetMin: z.number().min(5).max(600).nullable(),
  /** Minutes of a second session for what waits; null has none. */
  secondMin: z.number().min(5).max(600).nullable(),
  people: z.int().min(1).max(8),
  experience: z.enum(["first-time", "experienced"]),
  /** On its trailer, on stands without one, afloat, or far away with the buyer. */
  place: z.enum(places),
  /** Cooling water ashore: a hose on the flush port or muffs. */
  hose: z.boolean(),
  /** The order made by hand, by topic; null lets the route find it. */
  manualOrder: z.array(topicIdSchema).max(600).nullable(),
  /** Topics that are told although there would be others to choose first: like musts, but only for this walk. */
  added: z.array(topicIdSchema).max(100).default([]),
  /** What the buyer reads: their page, their cards. Left out: English. */
  language: languageSchema.optional(),
});
export type PlanOptions = z.infer<typeof planOptionsSchema>;

/** Minutes that a plan is offered; null: all there are. */
export const budgets = [30, 45, 60, 90, 120, null] as const;

/** One first-time buyer at the trailer with a hose, and all the time there is. */
export const defaultPlanOptions: Omit<PlanOptions, "style"> = {
  budgetMin: null,
  secondMin: null,
  people: 1,
  experience: "first-time",
  place: "trailer",
  hose: true,
  manualOrder: null,
  added: [],
};

export const elsewhereReasons = ["cooling", "afloat", "ashore", "reach"] as const;
export type ElsewhereReason = (typeof elsewhereReasons)[number];

export interface AdaptedTopics {
  readonly topics: Topic[];
  /** Topics that cannot be taught where the boat is, and why: no cooling water, not afloat, not ashore, out of reach. */
  readonly elsewhere: { topic: string; title: string; because: ElsewhereReason }[];
}

const ashoreOnly = ["coupler", "winch", "wheels"] as const;

/**
 * The topics as these people need them, where the boat is. Musts keep their level; to the experienced the others are taken
 * one step less far (done → shown → told). Minutes are reckoned for these people (`reckonMinutes`), times `paceOf`, how much
 * longer than reckoned this store takes for a topic, to the quarter.
 */
export function adaptTopics(
  topics: readonly Topic[],
  planOptions: Pick<PlanOptions, "people" | "experience" | "place" | "hose">,
  paceOf: Readonly<Record<string, number>> = {},
): AdaptedTopics {
  const adapted: AdaptedTopics = { topics: [], elsewhere: [] };
  for (const topic of topics) {
    const because = findHindrance(topic, planOptions);
    if (because !== null) {
      adapted.elsewhere.push({ topic: topic.id, title: topic.title, because });
      continue;
    }
    const level = chooseLevel(topic, planOptions.experience);
    const taught = { ...topic, level };
    const minutes = reckonMinutes(taught, planOptions) * (paceOf[topic.id] ?? 1);
    adapted.topics.push({ ...taught, minutes: toQuarters(minutes, speakMinutes(topic)) });
  }
  return adapted;
}

function findHindrance(topic: Topic, { place, hose }: Pick<PlanOptions, "place" | "hose">): ElsewhereReason | null {
  if (place === "remote") return null;
  const asks = topic.asks ?? "any";
  if (asks === "cooling" && place !== "afloat" && !hose) return "cooling";
  if (asks === "afloat" && place !== "afloat") return "afloat";
  if (asks === "ashore" && place === "afloat") return "ashore";
  const needsTrailer = topic.where.every((kind) => (ashoreOnly as readonly string[]).includes(kind));
  if (needsTrailer && place !== "trailer") return "reach";
  return null;
}
