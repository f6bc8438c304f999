import { z } from "zod";
import { breakInPackSchema } from "../breakin/index.ts";
import { type Hash, writeJson } from "../hash/index.ts";
import { readyCheckSchema } from "../ready/index.ts";
import { plainText, rigSchema } from "../rig/index.ts";
import { explainStops, type Plan, planOptionsSchema, planSchema } from "../route/index.ts";
import { servicePackSchema } from "../service/index.ts";
import { type ToldIn, type Topic, toldInSchema, toldTopicSchema, topicIdSchema, withWords } from "../topic/index.ts";
import { isExplaining, type WalkState } from "../walk/index.ts";

const arrivalCheckSchema = z.strictObject({ id: topicIdSchema, title: plainText(80), why: plainText(160) });

/**
 * All that a walk goes by, as it was when it began (`ravik.snapshot/1`): the boat with its gear list, the topics with their
 * words, methods, levels and minutes, the plan and what it was made for, what is checked before and on arrival, the packs.
 * Known by the SHA-256 of its canonical text; nothing under way reads the library or the boat sheet again.
 */
export const snapshotSchema = z.strictObject({
  format: z.literal("ravik.snapshot/1"),
  boatName: plainText(80),
  hull: z.string(),
  /** Of the words. */
  language: z.string().regex(/^[a-z]{2}$/),
  rig: rigSchema,
  topics: z.array(toldTopicSchema),
  /** The same in the languages that somebody here reads or speaks. Left out where there is none. */
  told: toldInSchema.optional(),
  /** The method chosen for topics that are taught in several ways. */
  methods: z.record(topicIdSchema, topicIdSchema),
  planOptions: planOptionsSchema,
  plan: planSchema,
  makeReady: z.array(readyCheckSchema),
  arrival: z.array(arrivalCheckSchema),
  /** Whether a must is open until each who attends has done it; walks that began before this was asked go on without. */
  eachDoes: z.literal(true).optional(),
  packs: z.strictObject({ breakIn: z.array(breakInPackSchema), service: z.array(servicePackSchema) }),
});
export type Snapshot = z.infer<typeof snapshotSchema>;

/** The canonical text of a snapshot, and its SHA-256. */
export function sealSnapshot(snapshot: Snapshot, hash: Hash): { readonly sha256: string; readonly text: string } {
  const text = writeJson(snapshot);
  return { sha256: hash(text), text };
}

/**
 * The topics of a walk with the words that were heard: those of the snapshot it goes by, but for a topic that was explained
 * under another one, the words of that. Explained topics that this boat no longer has come last.
 */
export function resolveTopics(
  governing: readonly Topic[],
  others: ReadonlyMap<string, readonly Topic[]>,
  state: WalkState,
): Topic[] {
  if (others.size === 0) return [...governing];
  const heard = new Map<string, Topic>();
  for (const [id, { marks }] of state.topics) {
    const explained = marks.findLast(({ mark }) => isExplaining(mark));
    const words = explained?.snapshot === undefined ? undefined : others.get(explained.snapshot);
    const topic = words?.find((each) => each.id === id);
    if (topic !== undefined) heard.set(id, topic);
  }
  const here = new Set(governing.map(({ id }) => id));
  return [
    ...governing.map((topic) => heard.get(topic.id) ?? topic),
    ...[...heard.values()].filter(({ id }) => !here.has(id)),
  ];
}

/** Topics as they were heard: those that were told in another language, in its words. */
export function tellAsHeard(topics: readonly Topic[], told: ToldIn, state: WalkState): Topic[] {
  return topics.map((topic) => {
    const explained = state.topics.get(topic.id)?.marks.findLast(({ mark }) => isExplaining(mark));
    return explained?.language === undefined ? topic : withWords(topic, told[explained.language]?.[topic.id]);
  });
}

/** What has changed in library or boat sheet since a walk began, of what is still to come. */
export interface SnapshotChanges {
  readonly topics: readonly {
    readonly topic: string;
    readonly title: string;
    readonly what: "reworded" | "added" | "gone" | "now-must" | "no-must";
  }[];
  readonly isBoatChanged: boolean;
}

const words = ({ minutes: _m, hands: _h, doing: _d, ...topic }: Topic) => writeJson(topic);

/** What `fresh` has otherwise than `current`, but for topics already `explained`. Minutes are learned daily and do not count. */
export function compareSnapshots(
  current: Pick<Snapshot, "topics" | "rig" | "makeReady">,
  fresh: Pick<Snapshot, "topics" | "rig" | "makeReady">,
  explained: ReadonlySet<string>,
): SnapshotChanges {
  const before = new Map(current.topics.map((topic) => [topic.id, topic]));
  const after = new Map(fresh.topics.map((topic) => [topic.id, topic]));
  const topics: SnapshotChanges["topics"][number][] = [];
  for (const topic of fresh.topics) {
    if (explained.has(topic.id)) continue;
    const { id, title, must } = topic;
    const was = before.get(id);
    if (was === undefined) topics.push({ topic: id, title, what: "added" });
    else if (was.must !== must) topics.push({ topic: id, title, what: must ? "now-must" : "no-must" });
    else if (words(was) !== words(topic)) topics.push({ topic: id, title, what: "reworded" });
  }
  for (const { id, title } of current.topics)
    if (!after.has(id) && !explained.has(id)) topics.push({ topic: id, title, what: "gone" });
  return { topics, isBoatChanged: writeJson(current.rig) !== writeJson(fresh.rig) };
}

/**
 * The snapshot a walk under way goes on with: what was `explained` stays as it was said, in the order it was said; all that
 * is still to come is taken from `fresh`.
 */
export function mergeSnapshots(current: Snapshot, fresh: Snapshot, explained: ReadonlySet<string>): Snapshot {
  const said = new Map(
    current.topics.flatMap((topic) => (explained.has(topic.id) ? [[topic.id, topic] as const] : [])),
  );
  const here = new Set(fresh.topics.map(({ id }) => id));
  const topics = [
    ...fresh.topics.map((topic) => said.get(topic.id) ?? topic),
    ...[...said.values()].filter(({ id }) => !here.has(id)),
  ];
  const plan = mergePlans(current.plan, fresh.plan, explained);
  const told = mergeTold(current.told, fresh.told, explained);
  // What is asked of a walk does not change while it goes on.
  const { eachDoes: _, ...rest } = fresh;
  return {
    ...rest,
    ...(current.eachDoes === undefined ? {} : { eachDoes: current.eachDoes }),
    topics,
    ...(told === undefined ? {} : { told }),
    plan: { ...plan, reasons: explainStops({ rig: fresh.rig, topics, visits: plan.visits }) },
  };
}

/** What was said stays in the words it had, in other languages as in the first. */
function mergeTold(current: ToldIn = {}, fresh: ToldIn = {}, explained: ReadonlySet<string>): ToldIn | undefined {
  const languages = [...new Set([...Object.keys(current), ...Object.keys(fresh)])] as (keyof ToldIn)[];
  if (languages.length === 0) return undefined;
  const only = (words: ToldIn[keyof ToldIn], isKept: (id: string) => boolean) =>
    Object.fromEntries(Object.entries(words ?? {}).filter(([id]) => isKept(id)));
  return Object.fromEntries(
    languages.map((language) => [
      language,
      {
        ...only(fresh[language], (id) => !explained.has(id)),
        ...only(current[language], (id) => explained.has(id)),
      },
    ]),
  );
}

function mergePlans(current: Plan, fresh: Plan, explained: ReadonlySet<string>): Plan {
  const only = (visits: Plan["visits"], isKept: (id: string) => boolean) =>
    visits
      .map((visit) => ({ ...visit, topics: visit.topics.filter(isKept) }))
      .filter(({ topics }) => topics.length > 0);
  const open = (id: string) => !explained.has(id);
  const { second } = fresh;
  return {
    ...fresh,
    visits: [...only(current.visits, (id) => explained.has(id)), ...only(fresh.visits, open)],
    deferred: fresh.deferred.filter(open),
    second:
      second === null ? null : { ...second, visits: only(second.visits, open), deferred: second.deferred.filter(open) },
  };
}
