import { chooseLevel, type PlanOptions, proposeMinutes, reckonMinutes } from "../route/index.ts";
import { followMerges, type Topic } from "../topic/index.ts";
import { type Estimate, estimateMean } from "./interval.ts";

/** Walks of one year that taught a topic to as many people of like experience, by one specialist: how many, and their minutes. */
export interface SpentGroup extends Pick<PlanOptions, "people" | "experience"> {
  readonly topic: string;
  readonly by: string;
  readonly isLastYear: boolean;
  readonly n: number;
  readonly sumMin: number;
  readonly sumOfSquares: number;
}

/** Minutes as they were against minutes as they are planned, of one topic, one place or one specialist. */
export interface MinutesLine {
  readonly id: string;
  readonly plannedMin: number;
  /** A mean of minutes for topics; for places and people of recorded over planned. */
  readonly now: Estimate | null;
  readonly before: Estimate | null;
}
export interface MinutesReport {
  readonly topics: readonly MinutesLine[];
  readonly places: readonly MinutesLine[];
  readonly people: readonly MinutesLine[];
}

interface Sum {
  n: number;
  sum: number;
  squares: number;
  planned: number;
}
const nothing = (): Sum => ({ n: 0, sum: 0, squares: 0, planned: 0 });

/**
 * Minutes by topic, by the kind of place it is told at and by specialist, this year and the year before, against the library's
 * minutes for as many people of that experience. A topic that was merged counts with the one it is part of; one the library no
 * longer has is left out. Each list is sorted by how far it is over its plan.
 */
export function reportMinutes(topics: readonly Topic[], groups: readonly SpentGroup[]): MinutesReport {
  const nameOf = followMerges(topics);
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const tables = {
    topics: new Map<string, Sum[]>(),
    places: new Map<string, Sum[]>(),
    people: new Map<string, Sum[]>(),
  };
  const add = (
    table: Map<string, Sum[]>,
    key: string,
    year: number,
    group: SpentGroup,
    plannedMin: number,
    unit: number,
  ) => {
    const sums = table.get(key) ?? [nothing(), nothing()];
    table.set(key, sums);
    const sum = sums[year]!;
    sum.n += group.n;
    sum.sum += group.sumMin / unit;
    sum.squares += group.sumOfSquares / (unit * unit);
    sum.planned += plannedMin * group.n;
  };
  for (const group of groups) {
    const topic = byId.get(nameOf(group.topic));
    if (topic === undefined || group.n === 0) continue;
    const level = chooseLevel(topic, group.experience);
    const planned = (reckonMinutes({ ...topic, level }, group) * topic.minutes) / proposeMinutes(topic);
    const year = group.isLastYear ? 1 : 0;
    add(tables.topics, topic.id, year, group, planned, 1);
    add(tables.places, topic.where[0]!, year, group, planned, planned);
    add(tables.people, group.by, year, group, planned, planned);
  }
  return {
    topics: listLines(tables.topics, ({ now, plannedMin }) => (now === null ? 0 : now.value - plannedMin)),
    places: listLines(tables.places, ({ now }) => now?.value ?? 0),
    people: listLines(tables.people, ({ now }) => now?.value ?? 0),
  };
}

const listLines = (table: ReadonlyMap<string, readonly Sum[]>, over: (line: MinutesLine) => number): MinutesLine[] =>
  [...table]
    .map(([id, sums]): MinutesLine => {
      const [now, before] = sums.map(({ n, sum, squares }) => estimateMean(n, sum, squares));
      const [{ planned, n }] = sums as [Sum, Sum];
      return { id, plannedMin: n === 0 ? 0 : planned / n, now: now!, before: before! };
    })
    .filter(({ now, before }) => now !== null || before !== null)
    .sort((a, b) => over(b) - over(a) || (a.id < b.id ? -1 : 1));
