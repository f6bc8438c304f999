import type { RouteTopic } from "../contract.ts";

/**
 * Topics of one station that become ready together: they wait for the same topics of *other* stations.
 * On a visit every ready topic is told at once, so a block is told whole and the search need only count blocks.
 */
export interface Block {
  readonly station: number;
  readonly topics: readonly number[];
  /** Blocks of other stations that must have been told. */
  readonly needs: readonly number[];
}

export type TopicOrder = { ok: true; order: number[] } | { ok: false; circle: string[] };

/** Topics ordered so that each stands after its `after`, the earliest given first; or one circle of them. */
export function orderTopics(topics: readonly RouteTopic[]): TopicOrder {
  const index = new Map(topics.map((topic, i) => [topic.id, i]));
  const waiting = topics.map((topic) => new Set(topic.after).size);
  const followers: number[][] = topics.map(() => []);
  topics.forEach((topic, i) => {
    for (const id of new Set(topic.after)) followers[index.get(id)!]!.push(i);
  });
  const ready = topics.map((_, i) => i).filter((i) => waiting[i] === 0);
  const order: number[] = [];
  while (ready.length > 0) {
    let best = 0;
    for (let k = 1; k < ready.length; k++) if (ready[k]! < ready[best]!) best = k;
    const i = ready.splice(best, 1)[0]!;
    order.push(i);
    for (const next of followers[i]!) if (--waiting[next]! === 0) ready.push(next);
  }
  if (order.length === topics.length) return { ok: true, order };
  return { ok: false, circle: findCircle(topics, index, new Set(order)) };
}

/** Walks back along `after` from a topic that never became ready until a topic comes round again. */
function findCircle(topics: readonly RouteTopic[], index: ReadonlyMap<string, number>, told: ReadonlySet<number>) {
  const path: number[] = [];
  let at = topics.findIndex((_, i) => !told.has(i));
  while (!path.includes(at)) {
    path.push(at);
    at = topics[at]!.after.map((id) => index.get(id)!).find((i) => !told.has(i))!;
  }
  return path
    .slice(path.indexOf(at))
    .sort((a, b) => a - b)
    .map((i) => topics[i]!.id);
}

/** Groups topics into blocks. `order` as from orderTopics; `stationOf[i]` is the station index of topic i. */
export function createBlocks(
  topics: readonly RouteTopic[],
  order: readonly number[],
  stationOf: readonly number[],
): Block[] {
  const index = new Map(topics.map((topic, i) => [topic.id, i]));
  const ancestors: Set<number>[] = topics.map(() => new Set());
  const blockOfKey = new Map<string, number>();
  const blockOfTopic: number[] = [];
  const blocks: { station: number; topics: number[]; needs: number[] }[] = [];
  for (const i of order) {
    const mine = ancestors[i]!;
    for (const id of topics[i]!.after) {
      const before = index.get(id)!;
      mine.add(before);
      for (const older of ancestors[before]!) mine.add(older);
    }
    const needs = new Set<number>();
    for (const a of mine) if (stationOf[a] !== stationOf[i]) needs.add(blockOfTopic[a]!);
    const needList = [...needs].sort((a, b) => a - b);
    const key = `${stationOf[i]}:${needList.join(",")}`;
    let block = blockOfKey.get(key);
    if (block === undefined) {
      block = blocks.length;
      blockOfKey.set(key, block);
      blocks.push({ station: stationOf[i]!, topics: [], needs: needList });
    }
    blocks[block]!.topics.push(i);
    blockOfTopic[i] = block;
  }
  return blocks;
}

/**
 * The blocks that decide the order: one is left out when another of its station waits for all it waits for (so it is told
 * by then anyhow), provided that whatever waits for it waits for such another too. Same best walks, far fewer states.
 */
export function dropImpliedBlocks(blocks: readonly Block[]): Block[] {
  const needs = blocks.map((block) => new Set(block.needs));
  const dropped = new Set<number>();
  const implies = (c: number, b: number) =>
    c !== b &&
    !dropped.has(c) &&
    blocks[c]!.station === blocks[b]!.station &&
    [...needs[b]!].every((a) => needs[c]!.has(a));
  for (let again = true; again; ) {
    again = false;
    for (let b = 0; b < blocks.length; b++) {
      if (dropped.has(b)) continue;
      const others = blocks.map((_, c) => c).filter((c) => implies(c, b));
      if (others.length === 0) continue;
      const waiting = blocks.map((_, x) => x).filter((x) => !dropped.has(x) && needs[x]!.has(b));
      if (!waiting.every((x) => others.some((c) => needs[x]!.has(c)))) continue;
      dropped.add(b);
      for (const x of waiting) needs[x]!.delete(b);
      again = true;
    }
  }
  const kept = blocks.map((_, b) => b).filter((b) => !dropped.has(b));
  const place = new Map(kept.map((b, i) => [b, i]));
  return kept.map((b) => ({ ...blocks[b]!, needs: [...needs[b]!].map((a) => place.get(a)!) }));
}
