import { isDeepStrictEqual } from "node:util";
import type { LibrarySheet } from "../../api/index.ts";
import { glossary, topics as shipped } from "../../content/index.ts";
import { phraseBooks } from "../../content/languages/index.ts";
import { toInstant } from "../../core/dates/index.ts";
import { findText, layBook, type PhraseBook } from "../../core/language/index.ts";
import { type Idiom, spellText } from "../../core/region/index.ts";
import { learnMinutes, listRaises, type OwnStyle, orderTopics, type Raise } from "../../core/route/index.ts";
import {
  followMerges,
  type GlossaryEntry,
  glossaryListSchema,
  layGlossary,
  librarySchema,
  type OwnWords,
  type SchoolChoices,
  type Topic,
} from "../../core/topic/index.ts";
import type { Forgotten } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import { Failure } from "../failure.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { TopicEdits } from "../repositories/topicEdits.ts";

/** What is taught in this store today. */
export interface Library {
  /** Changes whenever anything below does. */
  readonly version: string;
  readonly topics: readonly Topic[];
  readonly schools: SchoolChoices;
  readonly ownStyles: readonly OwnStyle[];
  /** Minutes as this store takes them, by topic. */
  readonly minutesOf: Readonly<Record<string, number>>;
  /** Topics that buyers ring about, taken further. */
  readonly raised: Readonly<Record<string, Raise>>;
  readonly idiom: Idiom;
}

interface Forgetting {
  readonly handovers: number;
  readonly byTopic: ReadonlyMap<string, Forgotten>;
}

interface Parts {
  readonly topicEdits: TopicEdits;
  readonly deliveries: Deliveries;
  readonly settings: ReturnType<typeof createSettings>;
  readonly versions: Versions;
  readonly clock: Clock;
}

/** How long a topic stays raised after buyers rang about it: two seasons of boats are taught by it. Our choice. */
const raiseHoldsMs = 730 * 86_400_000;

/** The store's own minutes of a topic, said only where they are not the topic's. */
const differs = (id: string, shippedMin: number, ownMin: number | undefined): [string, number][] =>
  ownMin === undefined || ownMin === shippedMin ? [] : [[id, ownMin]];

const shippedById = new Map(shipped.map((topic) => [topic.id, topic]));

/** The shipped library with the store's own edits, its schools, its styles and its minutes laid over it. */
export function createLibraryService(parts: Parts) {
  const { topicEdits, settings, clock } = parts;
  const model = createLibraryModel(parts);
  const read = async (): Promise<Library> => {
    const { stamp, value } = await model();
    return { version: stamp, ...value };
  };
  const forgotten = createForgettingModel(parts);
  const readForgotten = async () => (await forgotten()).value;
  return {
    read,
    readForgotten,
    async describe(): Promise<LibrarySheet> {
      const { topics, schools, ownStyles, minutesOf, raised } = await read();
      const edits = await topicEdits.list();
      return {
        topics: [...topics],
        edits: edits.map(({ topic, basis, by, at }) => {
          const now = shippedById.get(followMerges(topics)(topic.id)) ?? null;
          const isBehind = !isDeepStrictEqual(now, basis);
          const kept = now !== null && now.id !== topic.id ? topic : null;
          return { topic: topic.id, by, at, shipped: now, isBehind, basis: isBehind ? basis : null, setAside: kept };
        }),
        schools,
        ownStyles: [...ownStyles],
        raised: { ...raised },
        forgotten: Object.fromEntries((await readForgotten()).byTopic),
        minutesOf: Object.fromEntries(topics.flatMap(({ id, minutes }) => differs(id, minutes, minutesOf[id]))),
      };
    },
    /** Keeps the store's wording of topics; the library as a whole must still hold together. What is the same is left. */
    async edit(wanted: readonly Topic[], by: string): Promise<{ changed: number; same: number }> {
      const { topics } = await read();
      const now = new Map(topics.map((topic) => [topic.id, topic]));
      const nameOf = followMerges(topics);
      const merged = wanted.find(({ id }) => nameOf(id) !== id);
      if (merged !== undefined)
        throw new Failure("topic-merged", { topic: merged.title, into: now.get(nameOf(merged.id))!.title });
      const fresh = new Map(wanted.map((topic) => [topic.id, topic]));
      checkWhole(topics, fresh);
      const changed = [...fresh.values()].filter((topic) => !isDeepStrictEqual(now.get(topic.id), topic));
      const at = clock.now();
      for (const topic of changed) {
        const basis = shippedById.get(topic.id) ?? null;
        if (isDeepStrictEqual(basis, topic)) await topicEdits.remove(topic.id);
        else await topicEdits.write({ topic, basis, by, at });
      }
      return { changed: changed.length, same: fresh.size - changed.length };
    },
    async readGlossary() {
      const { ownWords, phrases, region } = await settings.read();
      const books = phraseBooks.map((book) => layBook(book, phrases));
      const { lines, leftOut } = layGlossary(glossary, ownWords);
      const ours = lines.filter(({ entry, original }) => entry !== original);
      // Words stay what they are looked up by; what they mean is said as the store says it.
      const say = (entry: GlossaryEntry) => ({ ...entry, means: spellText(entry.means, region.spelling) });
      return {
        entries: lines.map(({ entry }) => say(entry)),
        told: books.flatMap((book) => lines.flatMap(({ entry }) => tellEntry(entry, book) ?? [])),
        ours: ours.map(({ key, entry, original }) => ({ key, term: entry.term, original })),
        leftOut,
      };
    },
    /** The store's own entry for a term, none of it (null), or what ships again (undefined). No word is explained twice. */
    async setWord(key: string, entry: GlossaryEntry | null | undefined) {
      await settings.change((now) => ({ ownWords: changeWord(now.ownWords, key, entry) }));
    },
    async setSchools(schools: SchoolChoices) {
      await settings.change({ schools: { ...schools } });
    },
    async setStyles(styles: readonly OwnStyle[]) {
      await settings.change({ ownStyles: [...styles] });
    },
    /** Back to the shipped wording. A topic of the store's own is gone, unless another comes after it. */
    async revert(id: string) {
      const { topics } = await read();
      if (!topics.some((topic) => topic.id === followMerges(topics)(id)))
        throw new Failure("not-found", { what: "topic", id });
      const waiting = topics.find(({ after }) => after.includes(id));
      if (!shippedById.has(id) && waiting !== undefined)
        throw new Failure("topic-needed", { topic: id, neededBy: waiting.title });
      await topicEdits.remove(id);
    },
  };
}

export type LibraryService = ReturnType<typeof createLibraryService>;

/** A word with its meaning in another language; null where one of the two was not translated. */
function tellEntry({ term, means }: GlossaryEntry, book: PhraseBook): GlossaryEntry | null {
  const [word, meaning] = [term, means].map((text) => findText(book, text));
  return word === undefined || meaning === undefined ? null : { term: word, also: [], means: meaning };
}

/** The store's own words with one changed. Failure: `invalid-input` where a word would be explained twice. */
function changeWord(ownWords: OwnWords, key: string, entry: GlossaryEntry | null | undefined): OwnWords {
  const { [key]: _, ...others } = ownWords;
  const isShipped = glossary.some(({ term }) => term === key);
  const isGone = entry === undefined || (entry === null && !isShipped);
  const changed = isGone ? others : { ...others, [key]: entry };
  const whole = glossaryListSchema.safeParse(layGlossary(glossary, changed).lines.map((line) => line.entry));
  if (whole.success) return changed;
  throw new Failure("invalid-input", { issues: whole.error.issues.map(({ message }) => ({ path: key, message })) });
}

/** Refuses topics with which the library as a whole no longer holds together. */
function checkWhole(topics: readonly Topic[], fresh: ReadonlyMap<string, Topic>) {
  const kept = topics.filter(({ id }) => !fresh.has(id));
  const whole = librarySchema.safeParse([...kept, ...fresh.values()]);
  if (!whole.success) {
    const issues = whole.error.issues.map(({ message, path: [at, ...path] }) => {
      const topic = [...fresh.values()][Number(at) - kept.length]?.id;
      return { path: [topic, ...path].filter((part) => part !== undefined).join("."), message };
    });
    throw new Failure("invalid-input", { issues });
  }
  const ordered = orderTopics(whole.data.map((topic) => ({ ...topic, station: "any" })));
  if (!ordered.ok) throw new Failure("cycle", { topics: ordered.circle });
}

function createLibraryModel({ topicEdits, deliveries, settings, versions, clock }: Parts) {
  return createReadModel(versions, {
    settings: ["topics"],
    async key() {
      const { schools, ownStyles, region, callsSince } = await settings.read();
      // Minutes and calls are learned from once a day, so that a plan does not change while it is walked.
      return JSON.stringify([clock.today(), schools, ownStyles, region.units, region.spelling, callsSince]);
    },
    async make() {
      const { schools: chosen, ownStyles, region, callsSince } = await settings.read();
      const topics = layOver((await topicEdits.list()).map(({ topic }) => topic));
      const nameOf = followMerges(topics);
      const schools = Object.fromEntries(Object.entries(chosen).map(([id, school]) => [nameOf(id), school]));
      const minutesOf = learnMinutes(topics, await deliveries.listSpent());
      const idiom = { units: region.units, spelling: region.spelling };
      const sinceMs = Math.max(clock.nowMs() - raiseHoldsMs, callsSince === null ? 0 : Date.parse(callsSince));
      const raised = listRaises(topics, await deliveries.listTopicCalls(toInstant(sinceMs)));
      return { topics, schools, ownStyles, minutesOf, raised, idiom };
    },
  });
}

/**
 * The shipped library with the store's own topics laid over it. Its words for a topic that has been merged since wait beside
 * the merged one (`setAside`); what comes after such a topic comes after the merged one.
 */
function layOver(own: readonly Topic[]): Topic[] {
  const nameOf = followMerges(shipped);
  const ownById = new Map(own.filter(({ id }) => nameOf(id) === id).map((topic) => [topic.id, topic]));
  return [
    ...shipped.map(({ id, was }) => ({
      ...(ownById.get(id) ?? shippedById.get(id)!),
      ...(was === undefined ? {} : { was }),
    })),
    ...[...ownById.values()].filter(({ id }) => !shippedById.has(id)),
  ].map((topic) => ({ ...topic, after: [...new Set(topic.after.map(nameOf))].filter((id) => id !== topic.id) }));
}

/** What this store most often leaves out, learned once a day from its own late marks and its calls. */
function createForgettingModel({ deliveries, settings, versions, clock }: Parts) {
  return createReadModel(versions, {
    key: async () => `${clock.today()} ${(await settings.read()).callsSince}`,
    async make(): Promise<Forgetting> {
      const { rows, handovers } = await deliveries.countForgotten((await settings.read()).callsSince);
      const nameOf = followMerges(shipped);
      const byTopic = new Map<string, Forgotten>();
      for (const { topic, late, calls } of rows) {
        const before = byTopic.get(nameOf(topic)) ?? { late: 0, calls: 0 };
        byTopic.set(nameOf(topic), { late: before.late + late, calls: before.calls + calls });
      }
      return { handovers, byTopic };
    },
  });
}
