import type { RouteInput, RouteTopic } from "../contract.ts";

const mostStations = 13;
const mostMinutes = 2000;
const mostFronts = 200_000;

/** Whether the exact way applies: no `after` crosses stations, minutes are whole, few stations. */
export function isKnapsackExact(input: RouteInput): boolean {
  const stationOf = new Map(input.topics.map((topic) => [topic.id, topic.station]));
  return (
    input.stations.length <= mostStations &&
    input.topics.every((topic) => Number.isInteger(topic.minutes)) &&
    input.topics.reduce((sum, topic) => sum + topic.minutes, 0) <= mostMinutes &&
    input.topics.every((topic) => topic.after.every((id) => stationOf.get(id) === topic.station))
  );
}

interface Choice {
  readonly minutes: number;
  readonly value: number;
  readonly kept: readonly number[];
}

/**
 * The most valuable topics within `budgetMin`, exactly: per station the best value for each whole minute (a knapsack under
 * `after`), per set of stations the cheapest walk, and the two joined over all sets of stations. Answers topic indices, or null when
 * the `after` of one station are too entangled for this way.
 */
export function chooseByKnapsack(
  input: RouteInput,
  budgetMin: number,
  moves: readonly (readonly number[])[],
  musts: ReadonlySet<number>,
): ReadonlySet<number> | null {
  const { topics, stations } = input;
  const topicsAt = stations.map((station) => topics.flatMap((topic, i) => (topic.station === station.id ? [i] : [])));
  const used = topicsAt.flatMap((list, s) => (list.length > 0 ? [s] : []));
  const menus: Choice[][] = [];
  for (const s of used) {
    const menu = bestPerMinute(topics, topicsAt[s]!, musts);
    if (menu === null) return null;
    menus.push(menu);
  }
  const indexOf = (id: string | undefined) => (id === undefined ? null : stations.findIndex((s) => s.id === id));
  const walkOver = createSetWalks(moves, used, indexOf(input.start), indexOf(input.end));
  let mustSet = 0;
  used.forEach((s, bit) => {
    if (topicsAt[s]!.some((i) => musts.has(i))) mustSet |= 1 << bit;
  });
  // rows[set]: best value for at most m topic minutes taken at the stations of `set`, built by adding its highest station.
  const rows = new Map<number, Float64Array>();
  const floor = Math.floor(
    Math.min(
      budgetMin,
      topics.reduce((sum, topic) => sum + topic.minutes, 0),
    ),
  );
  rows.set(0, new Float64Array(floor + 1));
  let best = { value: -1, minutes: 0, set: 0 };
  for (let set = 0; set < 1 << used.length; set++) {
    if (set > 0) {
      const bit = 31 - Math.clz32(set);
      rows.set(set, joinRow(rows.get(set & ~(1 << bit))!, menus[bit]!, floor));
    }
    if ((set & mustSet) !== mustSet) continue;
    const left = Math.floor(budgetMin - walkOver(set));
    if (left < 0) continue;
    const value = rows.get(set)![Math.min(left, floor)]!;
    if (value > best.value) best = { value, minutes: Math.min(left, floor), set };
  }
  return readBack(best.set, best.minutes, rows, menus);
}

function joinRow(row: Float64Array, menu: readonly Choice[], floor: number): Float64Array {
  const joined = new Float64Array(floor + 1).fill(Number.NEGATIVE_INFINITY);
  for (const { minutes, value } of menu) {
    for (let m = minutes; m <= floor; m++) {
      const sum = row[m - minutes]! + value;
      if (sum > joined[m]!) joined[m] = sum;
    }
  }
  return joined;
}

function readBack(
  set: number,
  minutes: number,
  rows: Map<number, Float64Array>,
  menus: readonly (readonly Choice[])[],
) {
  const kept = new Set<number>();
  let rest = set;
  let left = minutes;
  while (rest !== 0) {
    const bit = 31 - Math.clz32(rest);
    const before = rows.get(rest & ~(1 << bit))!;
    const want = rows.get(rest)![left]!;
    const choice = menus[bit]!.find((c) => c.minutes <= left && before[left - c.minutes]! + c.value === want);
    if (choice === undefined) throw new Error(`knapsack: expected a choice worth ${want} at ${left} min`);
    for (const i of choice.kept) kept.add(i);
    left -= choice.minutes;
    rest &= ~(1 << bit);
  }
  return kept;
}

/**
 * For one station: the best value at each number of minutes, over choices closed under `after` that hold its musts.
 * Goes through the topics in order and remembers only which told topics still have followers to come.
 */
function bestPerMinute(
  topics: readonly RouteTopic[],
  own: readonly number[],
  musts: ReadonlySet<number>,
): Choice[] | null {
  const index = new Map(topics.map((topic, i) => [topic.id, i]));
  const order = orderByDepth(topics, own, index);
  const lastUse = new Map<number, number>();
  order.forEach((i, at) => {
    for (const id of topics[i]!.after) lastUse.set(index.get(id)!, at);
  });
  interface Front extends Choice {
    readonly open: readonly number[];
  }
  let fronts: Front[] = [{ minutes: 0, value: 0, kept: [], open: [] }];
  for (const [at, i] of order.entries()) {
    const topic = topics[i]!;
    const before = topic.after.map((id) => index.get(id)!);
    const next = new Map<string, Front>();
    const offer = (front: Front) => {
      const open = front.open.filter((j) => (lastUse.get(j) ?? -1) > at);
      const key = `${front.minutes}|${open.join(",")}`;
      const rival = next.get(key);
      if (rival === undefined || front.value > rival.value) next.set(key, { ...front, open });
    };
    for (const front of fronts) {
      if (!musts.has(i)) offer(front);
      if (before.every((j) => front.open.includes(j))) {
        offer({
          minutes: front.minutes + topic.minutes,
          value: front.value + topic.value,
          kept: [...front.kept, i],
          open: [...front.open, i],
        });
      }
    }
    fronts = [...next.values()];
    if (fronts.length > mostFronts) return null;
  }
  const menu: Choice[] = [];
  let most = Number.NEGATIVE_INFINITY;
  for (const front of fronts.sort((a, b) => a.minutes - b.minutes || b.value - a.value)) {
    if (front.value <= most) continue;
    most = front.value;
    menu.push(front);
  }
  return menu;
}

/** An order in which topics stand right after what they need, so that few stay open at a time. */
function orderByDepth(topics: readonly RouteTopic[], own: readonly number[], index: ReadonlyMap<string, number>) {
  const order: number[] = [];
  const placed = new Set<number>();
  const place = (i: number) => {
    if (placed.has(i)) return;
    placed.add(i);
    for (const id of topics[i]!.after) place(index.get(id)!);
    order.push(i);
  };
  for (const i of own) place(i);
  return order;
}

/** Least minutes of a walk that stands at every station of a set (bits over `used`), from start to end if given. */
function createSetWalks(
  moves: readonly (readonly number[])[],
  used: readonly number[],
  start: number | null,
  end: number | null,
): (set: number) => number {
  const k = used.length;
  const cost = new Float64Array((1 << k) * k).fill(Number.POSITIVE_INFINITY);
  for (let i = 0; i < k; i++) cost[(1 << i) * k + i] = start === null ? 0 : moves[start]![used[i]!]!;
  for (let set = 1; set < 1 << k; set++) {
    for (let i = 0; i < k; i++) {
      const here = cost[set * k + i]!;
      if (here === Number.POSITIVE_INFINITY) continue;
      for (let j = 0; j < k; j++) {
        if ((set & (1 << j)) !== 0) continue;
        const at = (set | (1 << j)) * k + j;
        const there = here + moves[used[i]!]![used[j]!]!;
        if (there < cost[at]!) cost[at] = there;
      }
    }
  }
  return (set) => {
    if (set === 0) return start !== null && end !== null ? moves[start]![end]! : 0;
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i < k; i++) {
      if ((set & (1 << i)) === 0) continue;
      least = Math.min(least, cost[set * k + i]! + (end === null ? 0 : moves[used[i]!]![end]!));
    }
    return least;
  };
}
