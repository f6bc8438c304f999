import { createHash } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import { ulid } from "ulid";
import type { BodyOf, Delivery, endpoints, PlanComparison } from "../../api/index.ts";
import { makeReady } from "../../content/index.ts";
import { handoverSchema, writeCanonical } from "../../core/record/index.ts";
import { createStyle, plainWishes, routeStyles, type WalkWishes } from "../../core/route/index.ts";
import { type Entry, foldWalk, isAfterSeal, isCovered, listObstacles, listOwed } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord, Summary } from "../repositories/deliveries.ts";
import type { People, Person } from "../repositories/people.ts";
import type { Settings } from "../repositories/settings.ts";
import { describeCare, findNextDue } from "./careDesk.ts";
import type { LibraryDesk } from "./libraryDesk.ts";
import type { Prepared, RigDesk } from "./rigDesk.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly people: People;
  readonly settings: { read(): Promise<Settings> };
  readonly rigDesk: RigDesk;
  readonly libraryDesk: LibraryDesk;
  readonly clock: Clock;
}

interface OnDesk {
  readonly delivery: DeliveryRecord;
  readonly boat: BoatRecord;
  readonly atHand: Prepared;
}

/** A handover from plan to seal: what a walk is given, what it may add, and when it may be closed. */
export function createHandoverDesk(parts: Parts) {
  const { database, boats, deliveries, people, settings, rigDesk, libraryDesk, clock } = parts;

  /** What the walk is given; of a sealed handover what was sealed, however library and rig have changed since. */
  const prepare = async (delivery: DeliveryRecord, boat: BoatRecord, transaction?: Transaction): Promise<Prepared> => {
    if (delivery.summary.state === "signed") {
      const seal = await deliveries.findSeal(delivery.id, transaction);
      if (seal !== null) return handoverSchema.parse(JSON.parse(seal.canonical));
    }
    return rigDesk.prepare(boat.rigText, await libraryDesk.read(), delivery.wishes);
  };
  const take = async (id: string, transaction?: Transaction): Promise<OnDesk> => {
    const delivery = await deliveries.find(id, transaction);
    if (delivery === null) throw new Failure("not-found", { what: "delivery", id });
    const boat = (await boats.find(delivery.boatId, transaction))!;
    return { delivery, boat, atHand: await prepare(delivery, boat, transaction) };
  };
  const staffOf = async (entries: readonly Entry[], also: readonly string[] = []) => {
    const ids = new Set([...entries.map((entry) => entry.by), ...also]);
    return (await people.list()).filter(({ id }) => ids.has(id)).map(({ id, name }) => ({ id, name }));
  };

  return {
    take,

    async describe(id: string): Promise<Delivery> {
      const { delivery, boat, atHand } = await take(id);
      const entries = await deliveries.listEntries(id);
      const seal = await deliveries.findSeal(id);
      return {
        id,
        boat: boat.id,
        boatName: boat.name,
        hull: boat.hull,
        date: delivery.date,
        time: delivery.time,
        note: delivery.note,
        buyers: delivery.buyers,
        staff: await staffOf(entries),
        wishes: delivery.wishes,
        rig: atHand.rig,
        plan: atHand.plan,
        topics: [...atHand.topics],
        makeReady,
        entries,
        seal: seal === null ? null : { sha256: seal.sha256, sealedAt: seal.sealedAt },
      };
    },

    /** Plans a handover with the school "power first" and all the time there is; the plan screen makes it theirs. */
    async add({ boat: boatId, date, time, buyers, note }: BodyOf<typeof endpoints.addDelivery>): Promise<string> {
      const boat = await boats.find(boatId);
      if (boat === null) throw new Failure("not-found", { what: "boat", id: boatId });
      const wishes: WalkWishes = { ...plainWishes, style: routeStyles[0]!.id, people: buyers.length };
      const id = ulid().toLowerCase();
      const atHand = rigDesk.prepare(boat.rigText, await libraryDesk.read(), wishes);
      await deliveries.add({
        id,
        boatId,
        date,
        time,
        note,
        buyers: buyers.map((name, i) => ({ id: `b${i + 1}`, name })),
        wishes,
        summary: summarize(atHand, [], false),
      });
      return id;
    },

    /** Stores what is new, once; all or none. What was stored before and is the same is only acknowledged. */
    async addEntries(id: string, user: Person, sent: readonly Entry[]) {
      return database.inTransaction(async (transaction) => {
        const desk = await take(id, transaction);
        const earlier = await deliveries.listEntries(id, transaction);
        const stands = new Map(earlier.map((entry) => [entry.id, entry]));
        const known: string[] = [];
        const fresh = new Map<string, Entry>();
        for (const [i, entry] of sent.entries()) {
          const before = stands.get(entry.id) ?? fresh.get(entry.id);
          if (before === undefined) fresh.set(entry.id, entry);
          else if (!isDeepStrictEqual(before, entry))
            throw new Failure("entry-differs", { path: `entries[${i}]`, id: entry.id });
          else known.push(entry.id);
        }
        const stored = [...fresh.values()];
        sent.forEach((entry, i) => {
          if (fresh.has(entry.id)) checkEntry(entry, `entries[${i}]`, desk, user, [...earlier, ...stored]);
        });
        const isSigned = desk.delivery.summary.state === "signed";
        if (isSigned && stored.some((entry) => !isAfterSeal(entry.kind))) throw new Failure("sealed", { delivery: id });
        if (stored.length > 0) {
          await deliveries.addEntries(id, stored, transaction);
          const summary = summarize(desk.atHand, [...earlier, ...stored], isSigned);
          await deliveries.setSummary(id, summary, transaction);
        }
        return { stored: stored.map((entry) => entry.id), known };
      });
    },

    /** Each style with the same people, place and minutes, for this boat. */
    async compareStyles(id: string): Promise<PlanComparison[]> {
      const { delivery, boat } = await take(id);
      const library = await libraryDesk.read();
      const styles = [...routeStyles, ...library.ownStyles.map(createStyle)];
      return styles.map(({ id: style, name, line }) => {
        const { plan, topics } = rigDesk.prepare(boat.rigText, library, { ...delivery.wishes, style, hand: null });
        const { moves, moveMin, totalMin, deferred, firstMust } = plan;
        const title = topics.find((topic) => topic.id === firstMust?.topic)?.title;
        return {
          style,
          name,
          line,
          moves,
          moveMin,
          totalMin,
          deferred: deferred.length,
          firstMust: firstMust === null || title === undefined ? null : { title, atMin: firstMust.atMin },
        };
      });
    },

    /** Plans the walk anew for these people, this place and this time. */
    async setPlan(id: string, wishes: WalkWishes) {
      const library = await libraryDesk.read();
      await database.inTransaction(async (transaction) => {
        const { delivery, boat } = await take(id, transaction);
        if (delivery.summary.state === "signed") throw new Failure("sealed", { delivery: id });
        const atHand = rigDesk.prepare(boat.rigText, library, wishes);
        const entries = await deliveries.listEntries(id, transaction);
        await deliveries.setPlan(id, wishes, summarize(atHand, entries, false), transaction);
      });
    },

    /** Freezes the handover: canonical text, its SHA-256, and the meter readings taken over into aftercare. */
    async seal(id: string, user: Person) {
      const store = await settings.read();
      return database.inTransaction(async (transaction) => {
        const before = await deliveries.findSeal(id, transaction);
        if (before !== null) throw new Failure("already-sealed", { sha256: before.sha256, sealedAt: before.sealedAt });
        const { delivery, boat, atHand } = await take(id, transaction);
        const entries = await deliveries.listEntries(id, transaction);
        const state = foldWalk(entries);
        const obstacles = listObstacles(atHand.topics, atHand.rig, state);
        if (obstacles.length > 0) throw new Failure("not-ready-to-seal", { obstacles });
        const sealedAt = new Date(clock.nowMs()).toISOString();
        const canonical = writeCanonical(
          handoverSchema.parse({
            format: "ravik.handover/1",
            delivery: id,
            store: store.store,
            date: delivery.date,
            hull: boat.hull,
            rig: atHand.rig,
            buyers: delivery.buyers,
            staff: await staffOf(entries, [user.id]),
            plan: atHand.plan,
            topics: atHand.topics,
            entries,
            sealedBy: user.id,
            sealedAt,
          }),
        );
        const sha256 = createHash("sha256").update(canonical, "utf8").digest("hex");
        await deliveries.addSeal({ deliveryId: id, sha256, sealedAt, canonical }, transaction);
        await deliveries.setSummary(id, summarize(atHand, entries, true), transaction);
        for (const entry of state.hours.values()) {
          await boats.addReading(
            {
              id: entry.id,
              boatId: boat.id,
              engine: entry.engine,
              date: delivery.date,
              hours: entry.hours,
              reason: null,
              by: entry.by,
            },
            transaction,
          );
        }
        const care = describeCare({
          rig: atHand.rig,
          inService: delivery.date,
          today: delivery.date,
          monthlyHours: store.monthlyHours,
          readings: await boats.listReadings([boat.id], transaction),
          services: [],
        });
        await boats.setCare(boat.id, { inService: delivery.date, dueDate: findNextDue(care) }, transaction);
        return { sha256, sealedAt };
      });
    },
  };
}

export type HandoverDesk = ReturnType<typeof createHandoverDesk>;

/** Refuses an entry that names what this delivery does not have, or that is not this person's to make. */
function checkEntry(entry: Entry, path: string, desk: OnDesk, user: Person, all: readonly Entry[]) {
  const { delivery, atHand } = desk;
  const must = (known: boolean, field: string, value: string) => {
    if (!known)
      throw new Failure("invalid-input", {
        issues: [{ path: `${path}.${field}`, message: `no ${field} "${value}" here` }],
      });
  };
  if (entry.delivery !== delivery.id)
    throw new Failure("wrong-delivery", { path: `${path}.delivery`, got: entry.delivery, expected: delivery.id });
  if (entry.by !== user.id) throw new Failure("not-your-entry", { path: `${path}.by`, got: entry.by });
  const hasTopic = (id: string) => atHand.topics.some((topic) => topic.id === id);
  const hasRef = (ref: string) => all.some((other) => other.id === ref);
  switch (entry.kind) {
    case "mark":
      if (!hasTopic(entry.topic)) throw new Failure("unknown-topic", { path: `${path}.topic`, got: entry.topic });
      if (entry.person !== null)
        must(
          delivery.buyers.some(({ id }) => id === entry.person),
          "person",
          entry.person,
        );
      return;
    case "reason":
    case "snag":
      if (entry.topic !== null && !hasTopic(entry.topic))
        throw new Failure("unknown-topic", { path: `${path}.topic`, got: entry.topic });
      return;
    case "undo":
    case "settle":
      if (!hasRef(entry.ref)) throw new Failure("unknown-ref", { path: `${path}.ref`, got: entry.ref });
      return;
    case "ready":
      must(
        makeReady.some(({ id }) => id === entry.check),
        "check",
        entry.check,
      );
      return;
    case "gear":
      must(
        atHand.rig.gear.some(({ id }) => id === entry.item),
        "item",
        entry.item,
      );
      return;
    case "hours":
      must(
        atHand.rig.engines.some(({ id }) => id === entry.engine),
        "engine",
        entry.engine,
      );
      return;
    case "start":
    case "sign":
    case "amend":
      return;
    default:
      throw new Error(`checkEntry: expected a known kind, got ${JSON.stringify(entry satisfies never)}`);
  }
}

/** What Today shows of a handover. */
export function summarize(
  atHand: Pick<Prepared, "rig" | "topics">,
  entries: readonly Entry[],
  isSigned: boolean,
): Summary {
  const state = foldWalk(entries);
  const musts = atHand.topics.filter((topic) => topic.must);
  const owed = listOwed(atHand.topics, atHand.rig.gear, state);
  return {
    state: isSigned ? "signed" : state.startedAt === null ? "planned" : "walking",
    ready: [...state.ready.values()].filter(({ ok }) => ok).map(({ check }) => check),
    mustsOpen: musts.filter((topic) => !isCovered(topic, state)).length,
    mustsOf: musts.length,
    stopping: owed.filter(({ stops }) => stops).map(({ text }) => text),
    owed,
  };
}
