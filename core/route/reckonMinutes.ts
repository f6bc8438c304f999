import type { Topic } from "../topic/index.ts";

/**
 * How long teaching takes, in minutes: our own estimates, which a store's walks correct (learnPace). Good people cover sixty
 * things in 16 to 25 minutes when they only tell and show, and 50 to 80 in 60 to 90 when the buyer does what matters by
 * hand. 130 words a minute is how people speak to somebody who is to remember it; talk among friends runs at 150 or more.
 */
export const talkPace = {
  wordsPerMin: 130,
  /** To reach a thing, open it, point and put it back, where the topic says no other (`hands`). */
  handsMin: { told: 0, shown: 0.25, done: 0.25 },
  /** One person's own try, where the topic says no other (`doing`). */
  doingMin: 0.5,
  /** Questions, as a share of the words. */
  questions: { "first-time": 0.2, experienced: 0.1 },
  /** Questions of each further person, as a share of the first one's. */
  furtherQuestions: 0.5,
  /** How much of what is no must an experienced person still hears and tries. */
  familiar: 0.75,
} as const;

/** How many are taught, and whether they have had a boat before. */
interface Learners {
  readonly people: number;
  readonly experience: keyof (typeof talkPace)["questions"];
}

type Taught = Pick<Topic, "say" | "cautions" | "level" | "must" | "hands" | "doing">;

/**
 * Minutes of one topic at its level: its words and cautions, spoken once however many listen; their questions; moving
 * hands; and the buyer's own doing. What must be done by hand is done by each of them, anything else by one.
 */
export function reckonMinutes(topic: Taught, { people, experience }: Learners): number {
  const { level, must } = topic;
  const share = experience === "experienced" && !must ? talkPace.familiar : 1;
  const words = speakMinutes(topic) * share;
  const questions = words * talkPace.questions[experience] * (1 + (people - 1) * talkPace.furtherQuestions);
  const hands = topic.hands ?? talkPace.handsMin[level];
  const doing = level === "done" ? (topic.doing ?? talkPace.doingMin) * share * (must ? people : 1) : 0;
  return words + questions + hands + doing;
}

const oneStepLess = { done: "shown", shown: "told", told: "told" } as const;

/** How far a topic is taken with these people: a must as it stands, anything else one step less far with the experienced. */
export const chooseLevel = (
  { level, must }: Pick<Topic, "level" | "must">,
  experience: Learners["experience"],
): Topic["level"] => (experience === "experienced" && !must ? oneStepLess[level] : level);

/** Minutes that caution and words take to say. */
export function speakMinutes({ say, cautions }: Pick<Topic, "say" | "cautions">): number {
  return [say, ...cautions].join(" ").split(/\s+/).length / talkPace.wordsPerMin;
}

/** Minutes to the nearest quarter, as plans count them, and never shorter than the words. */
export function toQuarters(minutes: number, leastMin = 0): number {
  const nearest = Math.max(1, Math.round(minutes * 4));
  return (nearest / 4 < leastMin ? Math.ceil(leastMin * 4) : nearest) / 4;
}

/** What a topic takes one first-time buyer: the minutes that stand in its file, unless a store knows better. */
export function proposeMinutes(topic: Taught): number {
  return toQuarters(reckonMinutes(topic, { people: 1, experience: "first-time" }), speakMinutes(topic));
}
