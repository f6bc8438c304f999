import { topics as shipped } from "../../content/index.ts";
import { learnMinutes, type OwnStyle } from "../../core/route/index.ts";
import { librarySchema, type SchoolChoices, type Topic } from "../../core/topic/index.ts";
import type { Clock } from "../clock.ts";
import { Failure } from "../failure.ts";
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
}

interface Parts {
  readonly topicEdits: TopicEdits;
  readonly deliveries: Deliveries;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

const shippedById = new Map(shipped.map((topic) => [topic.id, topic]));

/** The shipped library with the store's own edits, its schools, its styles and its minutes laid over it. */
export function createLibraryDesk({ topicEdits, deliveries, settings, clock }: Parts) {
  let edits = 0;
  let known: Library | null = null;
  const read = async (): Promise<Library> => {
    const { schools, ownStyles } = await settings.read();
    // Minutes are learned once a day, so that a plan does not change while it is walked.
    const version = `${clock.today()} ${edits} ${settings.version()}`;
    if (known?.version === version) return known;
    const own = new Map((await topicEdits.list()).map(({ topic }) => [topic.id, topic]));
    const topics = [
      ...shipped.map((topic) => own.get(topic.id) ?? topic),
      ...[...own.values()].filter(({ id }) => !shippedById.has(id)),
    ];
    const recorded = await deliveries.listSpent();
    const minutesOf = Object.fromEntries(
      topics.map((topic) => [topic.id, learnMinutes(topic.minutes, recorded.get(topic.id) ?? [])]),
    );
    known = { version, topics, schools, ownStyles, minutesOf };
    return known;
  };
  return {
    read,
    shipped: (id: string): Topic | null => shippedById.get(id) ?? null,
    listEdits: () => topicEdits.list(),
    /** Keeps the store's wording of a topic; the library as a whole must still hold together. */
    async edit(topic: Topic, by: string) {
      const { topics } = await read();
      const others = topics.filter(({ id }) => id !== topic.id);
      const whole = librarySchema.safeParse([...others, topic]);
      if (!whole.success) {
        const issues = whole.error.issues.map(({ message, path }) => ({ path: path.slice(1).join("."), message }));
        throw new Failure("invalid-input", { issues });
      }
      await topicEdits.write({
        topic,
        basis: shippedById.get(topic.id) ?? null,
        by,
        at: new Date(clock.nowMs()).toISOString(),
      });
      edits++;
    },
    /** Back to the shipped wording. A topic of the store's own is gone, unless another comes after it. */
    async revert(id: string) {
      const { topics } = await read();
      if (!topics.some((topic) => topic.id === id)) throw new Failure("not-found", { what: "topic", id });
      const waiting = topics.find(({ after }) => after.includes(id));
      if (!shippedById.has(id) && waiting !== undefined)
        throw new Failure("topic-needed", { topic: id, neededBy: waiting.title });
      await topicEdits.remove(id);
      edits++;
    },
  };
}

export type LibraryDesk = ReturnType<typeof createLibraryDesk>;
