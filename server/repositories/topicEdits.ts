import type { Instant } from "../../core/dates/index.ts";
import { type Topic, topicSchema } from "../../core/topic/index.ts";
import type { TopicEditRow } from "../database/models.ts";
import type { Database } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

export interface TopicEdit {
  readonly topic: Topic;
  /** The shipped topic as it was when this was written; null for a topic of the store's own. */
  readonly basis: Topic | null;
  readonly by: string;
  readonly at: Instant;
}

/** The store's own wording of topics, kept apart from what ships. */
export function createTopicEdits({ models }: Database) {
  return {
    async list(): Promise<TopicEdit[]> {
      const rows: TopicEditRow[] = await readAll(models.topicEdits, { order: ["id"] });
      return rows.map(({ body, basis, by, at }) => ({
        topic: topicSchema.parse(JSON.parse(body)),
        basis: basis === null ? null : (JSON.parse(basis) as Topic),
        by,
        at,
      }));
    },
    async write({ topic, basis, by, at }: TopicEdit) {
      await models.topicEdits.upsert({
        id: topic.id,
        body: JSON.stringify(topic),
        basis: basis === null ? null : JSON.stringify(basis),
        by,
        at,
      });
    },
    async remove(id: string) {
      await models.topicEdits.destroy({ where: { id } });
    },
  };
}

export type TopicEdits = ReturnType<typeof createTopicEdits>;
