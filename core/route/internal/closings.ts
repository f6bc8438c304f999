import type { Block } from "./blocks.ts";

/**
 * One of the two things a bound remembers of a station: that it was visited (its _opening_: what waits for nothing there is
 * told), or that it needs no further visit (its _closing_: all is told).
 */
export interface Closing {
  readonly station: number;
  /** Blocks that are all told exactly when this is done. */
  readonly members: readonly number[];
  /** Indices of openings and closings of other stations that come first. */
  readonly needs: readonly number[];
}

/**
 * The same walk with blocks merged into an opening and a closing a station: a relaxation, for every walk that tells all
 * blocks does these in an order their `needs` allow. Only `stations` are looked at; an opening nobody waits for is left
 * out. At most two a station.
 */
export function createClosings(blocks: readonly Block[], stations: readonly number[]): Closing[] {
  const before = closeNeeds(blocks);
  const membersAt = new Map(stations.map((s) => [s, blocks.flatMap((block, b) => (block.station === s ? [b] : []))]));
  const awaitedAt = new Map(stations.map((s) => [s, new Set<number>()]));
  blocks.forEach((block, b) => {
    for (const a of before[b]!) if (blocks[a]!.station !== block.station) awaitedAt.get(block.station)?.add(a);
  });
  const closings: { station: number; members: number[]; needs: number[] }[] = [];
  const add = (station: number, members: number[]) => closings.push({ station, members, needs: [] }) - 1;
  const awaited = new Set(stations.flatMap((s) => [...awaitedAt.get(s)!]));
  const closingOf = new Map(stations.map((s) => [s, add(s, membersAt.get(s)!)]));
  const openingOf = new Map<number, number>();
  for (const s of stations) {
    const members = membersAt.get(s)!;
    const free = members.filter((b) => before[b]!.size === 0);
    if (free.length > 0 && free.length < members.length && members.some((b) => awaited.has(b)))
      openingOf.set(s, add(s, free));
  }
  for (const s of stations) {
    const needs = new Set<number>();
    for (const a of awaitedAt.get(s)!) {
      const other = blocks[a]!.station;
      const closing = closingOf.get(other);
      if (closing === undefined) continue;
      // A block that waits for all its station waits for is told no earlier than the last of its station.
      if ([...awaitedAt.get(other)!].every((x) => before[a]!.has(x))) needs.add(closing);
      const opening = openingOf.get(other);
      if (opening !== undefined) needs.add(opening);
    }
    closings[closingOf.get(s)!]!.needs.push(...needs);
  }
  return closings;
}

/** For each block all that must be told before it, however far back. */
function closeNeeds(blocks: readonly Block[]): ReadonlySet<number>[] {
  const known: (Set<number> | undefined)[] = blocks.map(() => undefined);
  const close = (b: number): Set<number> => {
    const seen = known[b];
    if (seen !== undefined) return seen;
    const set = new Set<number>();
    for (const a of blocks[b]!.needs) {
      set.add(a);
      for (const older of close(a)) set.add(older);
    }
    known[b] = set;
    return set;
  };
  return blocks.map((_, b) => close(b));
}
