import type { AnswerOf, endpoints } from "../../api/index.ts";
import { type BoatSort, type BoatStage, boatStages, findStage, soonBy } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { toPlainLetters } from "../../core/text/index.ts";
import type { Clock } from "../clock.ts";
import { createReadModels, type Versions } from "../readModel.ts";
import type { BoatShape, Boats, ListedBoat } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import { contactOf } from "./contactOf.ts";
import type { FleetBoat, FleetCare } from "./fleetCare.ts";
import { sayPeople } from "./nameBoat.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly fleetCare: FleetCare;
  readonly versions: Versions;
  readonly clock: Clock;
}

/** What the list of boats says of one, apart from days that come and go. */
interface Line extends BoatShape {
  readonly id: string;
  readonly name: string;
  readonly hull: string;
  readonly stock: string;
  readonly color: string;
  readonly inService: LocalDate | null;
  readonly buyers: string;
  readonly owed: number;
  /** All it can be found by, in plain letters. */
  readonly said: string;
  readonly due: NonNullable<FleetBoat["facts"]["next"]>["due"] | null;
  /** The day of that as a number (`toNumber`). */
  readonly dueNumber: number;
  readonly isBreakInOpen: boolean;
  /** Where it stands as long as no handover comes. */
  readonly restStage: BoatStage;
  /** By what it stands in a list sorted by that; of those that come next, by what it stands among others of its day. */
  readonly keys: Readonly<Record<BoatSort, string>>;
}

export interface BoatQuestion {
  readonly find: string;
  readonly stage: BoatStage | "all";
  readonly sort: BoatSort;
  readonly page: number;
}

/** So many boats a list shows; for the others one asks. */
const mostBoats = 300;
/** What comes after all letters and days. */
const last = "\u{10FFFF}";

/** The list of all boats. Worked out boat by boat, of those alone of which something was written. */
export function createBoatList(parts: Parts) {
  const { boats, deliveries, fleetCare, versions, clock } = parts;
  const readLines = createReadModels<Line>(versions, {
    kind: "boat",
    key: fleetCare.stamp,
    async make(ids) {
      const [listed, fleet] = await Promise.all([boats.listLines(ids), fleetCare.readAll()]);
      const dueBy = soonBy(clock.today());
      return new Map(listed.map((boat) => [boat.id, toLine(boat, fleet.get(boat.id), dueBy)]));
    },
  });
  const rank = createRanks();
  /** The next handover first, then the next service. `find`: of those whose name, hull number, phone or people hold it. */
  return async (wish: Partial<BoatQuestion> = {}): Promise<AnswerOf<typeof endpoints.boats>> => {
    const { find = "", stage = "all", sort = "next", page = 0 } = wish;
    const today = clock.today();
    const [comingOf, madeReady, byId] = await Promise.all([
      deliveries.listComing(today),
      deliveries.listMakingReady(today),
      readLines(),
    ]);
    const lines = [...byId.values()];
    const { places, orders, at, stages } = chooseBoats(
      { find, stage, sort },
      { lines, ranks: rank(sort, lines), comingOf, madeReady, dueBy: soonBy(today) },
    );
    const rows = cutPage(places, orders, page).map((place) => {
      const line = lines[place]!;
      const { said: _, keys: __, dueNumber: ___, isBreakInOpen: ____, restStage: _____, ...shown } = line;
      return { ...shown, nextDelivery: comingOf.get(line.id) ?? null, stage: at[place]! };
    });
    return { boats: rows, boatsFound: places.length, boatsInAll: lines.length, stages };
  };
}

function toLine({ contact, lastBuyers, ...boat }: ListedBoat, cared: FleetBoat | undefined, dueBy: LocalDate): Line {
  const { name, hull, stock, inService, id, color, owed, family, loaM, beamM, engines } = boat;
  const { name: named, phone } = contactOf({ contact });
  const handedTo = lastBuyers === null ? null : (JSON.parse(lastBuyers) as DeliveryRecord["buyers"]);
  const buyers = sayPeople({ contact, inService }, handedTo);
  const people = handedTo === null ? [named] : handedTo.map((each) => each.name);
  const tie = `${name}\n${hull}`;
  const due = cared?.facts.next?.due ?? null;
  const isBreakInOpen = cared?.isBreakInOpen ?? false;
  return {
    due,
    dueNumber: toNumber(due?.dueDate ?? null),
    isBreakInOpen,
    restStage: findStage({ inService, nextDelivery: null, isMakingReady: false, isBreakInOpen, due }, dueBy),
    ...{ id, name, hull, stock, color, inService, buyers, owed, family, loaM, beamM, engines },
    said: toPlainLetters([name, hull, stock, ...people, phone.replace(/\D/g, "")].join(" ")),
    keys: {
      next: tie,
      name: `${toPlainLetters(name)}\n${tie}`,
      buyer: `${toPlainLetters(people.join(" ")) || last}\n${tie}`,
      stock: `${toPlainLetters(stock) || last}\n${tie}`,
      // The latest first: days turned round.
      sold: `${inService === null ? last : inService.replace(/\d/g, (digit) => String(9 - +digit))}\n${tie}`,
    },
  };
}

/**
 * The place of each boat among all, by what it is sorted by, in the order of `lines`. A list is asked for at every turn and hardly
 * ever in another order: places are reckoned anew only when one of those texts has changed, and the list is sorted by numbers.
 */
function createRanks() {
  const known = new Map<BoatSort, { lines: readonly Line[]; readonly ranks: Float64Array }>();
  return (sort: BoatSort, lines: readonly Line[]): Float64Array => {
    const before = known.get(sort);
    if (before !== undefined && isAsBefore(before.lines, sort, lines)) {
      before.lines = lines;
      return before.ranks;
    }
    const keys = lines.map((line) => line.keys[sort]);
    const places = keys.map((_, i) => i).sort((a, b) => (keys[a]! < keys[b]! ? -1 : keys[a]! > keys[b]! ? 1 : 0));
    const ranks = new Float64Array(lines.length);
    for (const [rank, place] of places.entries()) ranks[place] = rank;
    known.set(sort, { lines, ranks });
    return ranks;
  };
}

const isAsBefore = (before: readonly Line[], sort: BoatSort, lines: readonly Line[]): boolean =>
  before.length === lines.length &&
  lines.every(
    (line, i) => before[i] === line || (before[i]!.id === line.id && before[i]!.keys[sort] === line.keys[sort]),
  );

interface Known {
  readonly lines: readonly Line[];
  readonly ranks: Float64Array;
  readonly comingOf: ReadonlyMap<string, LocalDate>;
  readonly madeReady: ReadonlySet<string>;
  readonly dueBy: LocalDate;
}

/** Those that are asked for, each with a number to sort by, and how many there are at each stage. */
function chooseBoats({ find, stage, sort }: Omit<BoatQuestion, "page">, known: Known) {
  const { lines, ranks, comingOf, madeReady, dueBy } = known;
  const words = toPlainLetters(find.trim())
    .split(/\s+/)
    .filter((word) => word !== "");
  const stages = Object.fromEntries(boatStages.map((name) => [name, 0])) as Record<BoatStage, number>;
  // Numbers alone, and no object a boat: of twenty thousand a page has three hundred.
  const at: BoatStage[] = new Array(lines.length);
  const places = new Int32Array(lines.length);
  const orders = new Float64Array(lines.length);
  let found = 0;
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    const nextDelivery = comingOf.get(line.id) ?? null;
    const isMakingReady = nextDelivery !== null && line.inService === null && madeReady.has(line.id);
    const stands = nextDelivery === null ? line.restStage : findStage({ ...line, nextDelivery, isMakingReady }, dueBy);
    at[i] = stands;
    stages[stands]++;
    if ((stage !== "all" && stands !== stage) || !words.every((word) => line.said.includes(word))) continue;
    const comes = sort === "next" ? (nextDelivery === null ? line.dueNumber : toNumber(nextDelivery)) : 0;
    places[found] = i;
    orders[found] = comes * ranksMost + ranks[i]!;
    found++;
  }
  return { places: places.subarray(0, found), orders: orders.subarray(0, found), at, stages };
}

/** The places of one page in its order. Numbers alone are sorted, natively; then what lies between the page's first and last. */
function cutPage(places: Int32Array, orders: Float64Array, page: number): number[] {
  const sorted = orders.slice().sort();
  const from = sorted[page * mostBoats];
  const to = sorted[Math.min(sorted.length, (page + 1) * mostBoats) - 1];
  if (from === undefined || to === undefined) return [];
  const cut: number[] = [];
  for (let i = 0; i < orders.length; i++) if (orders[i]! >= from && orders[i]! <= to) cut.push(i);
  return cut.sort((a, b) => orders[a]! - orders[b]!).map((i) => places[i]!);
}

/** More than any number of boats. */
const ranksMost = 10_000_000;
/** A day as a number that sorts as it does; none comes last. */
function toNumber(day: LocalDate | null): number {
  if (day === null) return 99_999_999;
  let number = 0;
  for (let i = 0; i < day.length; i++) {
    const digit = day.charCodeAt(i) - 48;
    if (digit >= 0) number = number * 10 + digit;
  }
  return number;
}
