import type { Boat, MessageLine, OwedLine, OwedSheet, Today } from "../../api/index.ts";
import { addDays, dayOf, type Instant, type LocalDate } from "../../core/dates/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import type { Plan } from "../../core/route/index.ts";
import { findStyle } from "../../core/route/index.ts";
import { compareDue } from "../../core/service/index.ts";
import {
  compareOwed,
  foldWalk,
  formatBuyers,
  isCovered,
  isInOrder,
  mayEnter,
  type Role,
} from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import { Failure } from "../failure.ts";
import type { Jobs } from "../jobs.ts";
import type { Epochs } from "../keeping/epoch.ts";
import type { Soundness } from "../keeping/soundness.ts";
import type { Messages } from "../messages.ts";
import type { Versions } from "../readModel.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import type { People } from "../repositories/people.ts";
import { createBoatList } from "./boatList.ts";
import type { CareReader } from "./careReader.ts";
import { contactOf } from "./contactOf.ts";
import type { FleetBoat, FleetCare } from "./fleetCare.ts";
import type { Library, LibraryService } from "./libraryService.ts";
import { listPeople, nameBoat } from "./nameBoat.ts";
import type { RigService } from "./rigService.ts";
import type { TowingService } from "./towingService.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly people: People;
  readonly careReader: CareReader;
  readonly fleetCare: FleetCare;
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly walkReader: WalkReader;
  readonly towingService: Pick<TowingService, "listMisfits">;
  readonly bookings: Pick<Bookings, "list">;
  readonly messages: Pick<Messages, "countFailed" | "findStates">;
  readonly jobs: Pick<Jobs, "countFailed">;
  readonly epochs: Epochs;
  readonly soundness: Soundness;
  readonly judgeBackup: () => "good" | "late" | "none";
  readonly versions: Versions;
  readonly clock: Clock;
}

const soonDays = 30;
/** How far ahead boats are looked at that are to be handed over. */
const weekDays = 7;
const mostRows = 12;
/** Deliveries that Today looks through for what is owed first; the list of everything owed looks through all. */
const mostOwing = 60;

/** Boats as a whole: today's list, all boats, one boat's page. */
export function createBoatService(parts: Parts) {
  return {
    /** The first screen, with what is this role's own business. */
    today: (role: Role) => readToday(parts, role),

    owed: () => readOwed(parts),

    list: createBoatList(parts),

    listHulls: parts.boats.listHulls,

    describe: (id: string) => describeBoat(parts, id),
  };
}

export type BoatService = ReturnType<typeof createBoatService>;

/** What is owed of these deliveries, what wants doing first at the top. */
function rankOwed(
  owing: readonly DeliveryRecord[],
  boats: ReadonlyMap<string, Named>,
  today: LocalDate,
  timeZone: string,
  states: MessageStates,
) {
  return owing
    .flatMap((delivery) => {
      const lines = describeOwed(delivery, boats.get(delivery.boatId)!, timeZone, states);
      return delivery.summary.owed.map((owed, i) => ({ owed, line: lines[i]! }));
    })
    .sort((a, b) => compareOwed(a.owed, b.owed, today))
    .map(({ line }) => line);
}

/** What a line calls a boat by. */
type Named = Pick<BoatHead, "id" | "name" | "hull">;

/** The boats of these handovers without their rigs, which no list of what is owed asks for. */
const findHeads = async (boats: Boats, of: readonly DeliveryRecord[]): Promise<ReadonlyMap<string, Named>> =>
  new Map((await boats.listHeads([...new Set(of.map(({ boatId }) => boatId))])).map((boat) => [boat.id, boat]));

function describeMessage(message: { id: string; at: Instant } | null, states: MessageStates): OwedLine["message"] {
  const state = message === null ? undefined : states.get(message.id);
  return message === null || state === undefined ? null : { ...message, state };
}

/** What became of the last message about each thing owed. */
async function findStates(
  { messages }: Pick<Parts, "messages">,
  of: readonly DeliveryRecord[],
): Promise<MessageStates> {
  const ids = of.flatMap(({ summary }) => summary.owed.flatMap(({ message }) => message?.id ?? []));
  return messages.findStates(ids);
}
type MessageStates = ReadonlyMap<string, MessageLine["state"]>;

function describeOwed(delivery: DeliveryRecord, boat: Named, timeZone: string, states: MessageStates): Today["owed"] {
  return delivery.summary.owed.map(({ ref, what, text, since, severity, owner, due, message, topic }) => ({
    boat: boat.id,
    boatName: boat.name,
    serial: serialOf(boat.hull),
    delivery: delivery.id,
    ref,
    what,
    text,
    since: dayOf(since, timeZone),
    severity,
    owner,
    due,
    message: describeMessage(message, states),
    topic,
    buyers: formatBuyers(delivery.buyers),
  }));
}

function describeHandover(
  { delivery, boat, walk, log }: HandoverContext,
  { visits, moves, totalMin }: Plan,
  library: Library,
): Today["handovers"][number] {
  const { rig, topics, makeReady: checks } = walk;
  const state = foldWalk(walk.sealed?.entries ?? log.entries);
  const open = checks.filter((check) => !isInOrder(state, check));
  const musts = topics.filter(({ must }) => must);
  return {
    boat: boat.id,
    boatName: boat.name,
    serial: serialOf(boat.hull),
    delivery: delivery.id,
    time: delivery.time,
    buyers: formatBuyers(delivery.buyers),
    note: delivery.note,
    family: rig.family,
    loaM: rig.loaM,
    beamM: rig.beamM,
    engines: rig.engines.length,
    readyDone: checks.length - open.length,
    readyOf: checks.length,
    readyOpen: open.map(({ title }) => title),
    mustsOpen: musts.filter((topic) => !isCovered(topic, state)).length,
    mustsOf: musts.length,
    stopping: delivery.summary.owed.filter(({ stops }) => stops).map(({ text }) => text),
    style: findStyle(delivery.planOptions.style, library.ownStyles).name,
    stops: visits.length,
    moves,
    totalMin,
    state: delivery.summary.state,
  };
}

function describeDue({ boat, facts }: FleetBoat, sold: readonly DeliveryRecord[]): Today["due"][number] {
  const { engine, title, due, likelyNowH, reportedH, reportedOn } = facts.next!;
  return {
    boat: boat.id,
    ...nameBoat(boat, sold),
    engine,
    title,
    likelyNowH,
    reportedH,
    reportedOn,
    due,
  };
}

interface DueSoon {
  /** On which something falls due within a month, the most urgent first. */
  readonly coming: readonly FleetBoat[];
  readonly overdue: number;
}
/** Looked through once: a fleet of which something was written, or that is seen on another day, is another one. */
const dueSoonOf = new WeakMap<ReadonlyMap<string, FleetBoat>, DueSoon>();

async function findDueSoon({ fleetCare }: Pick<Parts, "fleetCare">, date: LocalDate): Promise<DueSoon> {
  const fleet = await fleetCare.readAll();
  const known = dueSoonOf.get(fleet);
  if (known !== undefined) return known;
  const dueBy = addDays(date, soonDays);
  const all = [...fleet.values()].filter(({ facts: { next } }) => next != null);
  const found = {
    coming: all
      .filter(({ facts: { next } }) => next!.due.dueDate !== null && next!.due.dueDate <= dueBy)
      .sort((a, b) => compareDue(a.facts.next!.due, b.facts.next!.due) || (a.boat.id < b.boat.id ? -1 : 1)),
    overdue: all.filter(({ facts: { next } }) => next!.due.state === "overdue").length,
  };
  dueSoonOf.set(fleet, found);
  return found;
}

async function fallsDue(parts: Parts, date: LocalDate): Promise<Pick<Today, "due" | "dueInAll">> {
  const { deliveries } = parts;
  const { coming } = await findDueSoon(parts, date);
  const shown = coming.slice(0, mostRows);
  const sold = await deliveries.listOfBoats(shown.map(({ boat }) => boat.id));
  return {
    due: shown.map((each) => describeDue(each, sold)),
    dueInAll: coming.length,
  };
}

async function readToday(parts: Parts, role: Role): Promise<Today> {
  const { boats, deliveries, libraryService, walkReader, towingService, clock } = parts;
  const date = clock.today();
  const [now, owing, owedInAll, due, misfits] = await Promise.all([
    deliveries.listOn(date),
    deliveries.listOwing(mostOwing),
    deliveries.sumOwed(),
    fallsDue(parts, date),
    towingService.listMisfits(date),
  ]);
  const library = await libraryService.read();
  const own = await readOwnBusiness(parts, role, date);
  const [byId, heads, states] = await Promise.all([
    boats.findMany(now.map(({ boatId }) => boatId)),
    findHeads(boats, owing),
    findStates(parts, owing),
  ]);
  return {
    date,
    handovers: await Promise.all(
      now.map(async (delivery) => {
        const context = await walkReader.read(delivery, byId.get(delivery.boatId)!);
        return describeHandover(context, await walkReader.readPlan(context), library);
      }),
    ),
    misfits,
    ...own,
    owed: rankOwed(owing, heads, date, clock.timeZone, states).slice(0, mostRows),
    owedInAll,
    ...due,
  };
}

/** What one role looks at first: who makes boats ready, the coming week; the service counter, its slots; the owner, what went wrong. */
async function readOwnBusiness(
  parts: Parts,
  role: Role,
  date: LocalDate,
): Promise<Pick<Today, "coming" | "slots" | "course" | "waiting">> {
  return {
    waiting: mayEnter("close", role, []) ? await listWaiting(parts) : [],
    coming: role === "service" ? [] : await listComing(parts, date),
    slots: role === "service" || role === "technician" ? await listSlots(parts, date) : [],
    course: role === "owner" ? await readCourse(parts, date) : null,
  };
}

async function listComing({ boats, deliveries, walkReader }: Parts, date: LocalDate): Promise<Today["coming"]> {
  const open = await deliveries.listUnsigned(date, addDays(date, weekDays), mostRows);
  const byId = await boats.findMany(open.map(({ boatId }) => boatId));
  return Promise.all(
    open.map(async (delivery) => {
      const boat = byId.get(delivery.boatId)!;
      const { walk, log } = await walkReader.read(delivery, boat);
      const state = foldWalk(log.entries);
      return {
        boat: boat.id,
        boatName: boat.name,
        serial: serialOf(boat.hull),
        delivery: delivery.id,
        date: delivery.date,
        time: delivery.time,
        buyers: formatBuyers(delivery.buyers),
        readyOpen: walk.makeReady.filter((check) => !isInOrder(state, check)).map(({ title }) => title),
        readyOf: walk.makeReady.length,
        stopping: delivery.summary.owed.filter(({ stops }) => stops).map(({ text }) => text),
      };
    }),
  );
}

async function listWaiting({ boats, deliveries }: Parts): Promise<Today["waiting"]> {
  const waiting = await deliveries.listWaiting();
  const byId = await boats.findMany(waiting.map(({ boatId }) => boatId));
  return waiting.map(({ id, boatId, buyers, summary }) => {
    const boat = byId.get(boatId)!;
    const line = { boat: boat.id, boatName: boat.name, serial: serialOf(boat.hull), buyers: formatBuyers(buyers) };
    return { ...line, delivery: id, ...summary.waits! };
  });
}

async function listSlots({ bookings, boats, deliveries }: Parts, date: LocalDate): Promise<Today["slots"]> {
  const today = (await bookings.list(date)).filter((booking) => booking.date === date);
  const ids = today.map(({ boat }) => boat);
  const [byId, sold] = await Promise.all([boats.findMany(ids), deliveries.listOfBoats(ids)]);
  return today.map(({ id, boat: boatId, startMin, labourH, items, note }) => {
    return {
      boat: boatId,
      ...nameBoat(byId.get(boatId)!, sold),
      id,
      startMin,
      durationMin: Math.round(labourH * 60),
      title: items.map(({ title }) => title).join(", ") || note || "Slot",
    };
  });
}

async function readCourse(
  { deliveries, fleetCare, jobs, messages, judgeBackup, epochs, soundness }: Parts,
  date: LocalDate,
): Promise<Today["course"]> {
  const [late, { overdue }, failedMessages, failedJobs, stopped, loose] = await Promise.all([
    deliveries.listLate(date),
    findDueSoon({ fleetCare }, date),
    messages.countFailed(),
    jobs.countFailed(),
    deliveries.countStopped(date),
    deliveries.countLoose(),
  ]);
  return {
    failedMessages,
    failedJobs,
    backup: judgeBackup(),
    isHeld: await epochs.isHeld(),
    isDamaged: soundness.read() !== null,
    ...loose,
    latePromises: late.length,
    overdueBoats: overdue,
    stopped,
  };
}

/** Everything owed over all boats, what wants doing first at the top. */
async function readOwed(parts: Parts): Promise<OwedSheet> {
  const { boats, deliveries, people, clock } = parts;
  const date = clock.today();
  const owing = await deliveries.listOwing();
  const [byId, states] = await Promise.all([findHeads(boats, owing), findStates(parts, owing)]);
  const staff = (await people.list()).map(({ id, name }) => ({ id, name }));
  return { date, lines: rankOwed(owing, byId, date, clock.timeZone, states), staff };
}

async function describeBoat(parts: Parts, id: string): Promise<Boat> {
  const { boats, deliveries, people, careReader, rigService, clock } = parts;
  const boat = await boats.find(id);
  if (boat === null) throw new Failure("not-found", { what: "boat", id });
  const today = clock.today();
  const mine = await deliveries.listOfBoats([id]);
  const readings = await boats.listReadings([id]);
  const states = await findStates(parts, mine);
  const names = new Map((await people.list()).map((person) => [person.id, person.name]));
  return {
    id,
    name: boat.name,
    hull: boat.hull,
    rig: rigService.read(boat.rigText),
    inService: boat.inService,
    buyers: listPeople(boat, mine),
    stock: boat.stock,
    color: boat.color,
    language: mine.at(-1)?.planOptions.language ?? "en",
    today,
    deliveries: mine.map(({ id: delivery, date, time, summary }) => ({
      id: delivery,
      date,
      time,
      state: summary.state,
    })),
    ...(await careReader.describe(boat)),
    contact: contactOf(boat),
    readings: readings.map(
      ({ boatId: _, by, ...reading }) => ({ ...reading, by: names.get(by) ?? by }) as Boat["readings"][number],
    ),
    owed: mine.flatMap((delivery) => describeOwed(delivery, boat, clock.timeZone, states)),
  };
}
