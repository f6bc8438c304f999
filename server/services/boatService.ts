import { contactSchema } from "../../api/careSchemas.ts";
import type { AnswerOf, Boat, BodyOf, endpoints, NewFill, NewRun, OwedSheet, Today } from "../../api/index.ts";
import { boatScope, listScopes, readEngineStatus, readingsOf, sumTanks } from "../../core/care/index.ts";
import { addDays, type IsoDate } from "../../core/dates/index.ts";
import { askReading } from "../../core/hours/index.ts";
import type { Plan } from "../../core/route/index.ts";
import { findStyle } from "../../core/route/index.ts";
import { compareDue } from "../../core/service/index.ts";
import { compareOwed, formatBuyers } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import type { Files } from "../repositories/files.ts";
import type { People, Person } from "../repositories/people.ts";
import type { Messages } from "../standins/messages.ts";
import { type CareReader, toReading } from "./careReader.ts";
import type { FleetBoat, FleetCare } from "./fleetCare.ts";
import type { Library, LibraryService } from "./libraryService.ts";
import type { RigService } from "./rigService.ts";
import type { RunService } from "./runService.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly people: People;
  readonly careReader: CareReader;
  readonly fleetCare: FleetCare;
  readonly runService: RunService;
  readonly messages: Messages;
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly walkReader: WalkReader;
  readonly files: Files;
  readonly clock: Clock;
}

const soonDays = 30;
const mostRows = 12;
/** Tanks hold a little more than their label, and filler hoses take some. */
const overBrim = 1.1;
/** Deliveries that Today looks through for what is owed first; the list of everything owed looks through all. */
const mostOwing = 60;

/** Boats as a whole: today's list, one boat's page, and the hours and services that are entered there. */
export function createBoatService(parts: Parts) {
  const {
    database,
    boats,
    deliveries,
    people,
    careReader,
    fleetCare,
    runService,
    messages,
    rigService,
    libraryService,
    walkReader,
    files,
    clock,
  } = parts;

  /** The boats on which something falls due within a month, the most urgent first. */
  const fallsDue = async (date: IsoDate): Promise<Pick<Today, "due" | "dueInAll">> => {
    const dueBy = addDays(date, soonDays);
    const coming = (await fleetCare.read())
      .filter(({ facts: { next } }) => next?.due.dueDate != null && next.due.dueDate <= dueBy)
      .sort((a, b) => compareDue(a.facts.next!.due, b.facts.next!.due) || (a.boat.id < b.boat.id ? -1 : 1));
    const shown = coming.slice(0, mostRows);
    const sold = await deliveries.listOfBoats(shown.map(({ boat }) => boat.id));
    return {
      due: shown.map((each) => describeDue(each, buyersOf(each.boat.id, sold))),
      dueInAll: coming.length,
    };
  };
  const find = async (id: string, transaction?: Transaction) => {
    const boat = await boats.find(id, transaction);
    if (boat === null) throw new Failure("not-found", { what: "boat", id });
    return boat;
  };
  const isUsed = (boat: BoatRecord) => rigService.read(boat.rigText).used !== undefined;
  /** Care begins with the handover; of a used boat, with what was done on it before. */
  const checkCared = (boat: BoatRecord) => {
    if (boat.inService === null && !isUsed(boat)) throw new Failure("not-delivered", { boat: boat.id });
  };
  const checkDay = (boat: BoatRecord, date: IsoDate) => {
    if (date > clock.today()) throw new Failure("date-ahead", { path: "date", got: date, today: clock.today() });
    if (boat.inService !== null && date < boat.inService && !isUsed(boat))
      throw new Failure("before-delivery", { path: "date", got: date, inService: boat.inService });
  };
  const checkHours = (boat: BoatRecord, engine: string, date: IsoDate) => {
    if (!rigService.read(boat.rigText).engines.some(({ id }) => id === engine))
      throw new Failure("invalid-input", {
        issues: [{ path: "engine", message: `no engine "${engine}" on this boat` }],
      });
    checkDay(boat, date);
  };

  return {
    async today(): Promise<Today> {
      const date = clock.today();
      const [now, owing, owedInAll, due] = await Promise.all([
        deliveries.listOn(date),
        deliveries.listOwing(mostOwing),
        deliveries.sumOwed(),
        fallsDue(date),
      ]);
      const library = await libraryService.read();
      const byId = await boats.findMany([...now, ...owing].map(({ boatId }) => boatId));
      return {
        date,
        handovers: await Promise.all(
          now.map(async (delivery) => {
            const context = await walkReader.read(delivery, byId.get(delivery.boatId)!);
            return describeHandover(context, await walkReader.readPlan(context), library);
          }),
        ),
        owed: rankOwed(owing, byId, date).slice(0, mostRows),
        owedInAll,
        ...due,
      };
    },

    /** Everything owed over all boats, what wants doing first at the top. */
    async owed(): Promise<OwedSheet> {
      const date = clock.today();
      const owing = await deliveries.listOwing();
      const byId = await boats.findMany(owing.map(({ boatId }) => boatId));
      const staff = (await people.list()).map(({ id, name }) => ({ id, name }));
      return { date, lines: rankOwed(owing, byId, date), staff };
    },

    async list(): Promise<AnswerOf<typeof endpoints.boats>> {
      const today = clock.today();
      const all = await deliveries.listAll();
      const byBoat = new Map<string, DeliveryRecord[]>();
      for (const delivery of all) byBoat.set(delivery.boatId, [...(byBoat.get(delivery.boatId) ?? []), delivery]);
      const fleet = new Map((await fleetCare.read()).map((each) => [each.boat.id, each.facts.next]));
      const rows = (await boats.list()).map((boat) => {
        const mine = byBoat.get(boat.id) ?? [];
        const rig = rigService.read(boat.rigText);
        return {
          id: boat.id,
          name: boat.name,
          hull: boat.hull,
          family: rig.family,
          loaM: rig.loaM,
          beamM: rig.beamM,
          engines: rig.engines.length,
          buyers: buyersOf(boat.id, mine),
          inService: boat.inService,
          nextDelivery: mine.find(({ date, summary }) => date >= today && summary.state !== "signed")?.date ?? null,
          due: fleet.get(boat.id)?.due ?? null,
          owed: mine.reduce((sum, { summary }) => sum + summary.owed.length, 0),
        };
      });
      const order = (row: (typeof rows)[number]) => row.nextDelivery ?? row.due?.dueDate ?? "9999";
      return { boats: rows.sort((a, b) => (order(a) < order(b) ? -1 : order(a) > order(b) ? 1 : 0)) };
    },

    async describe(id: string): Promise<Boat> {
      const boat = await find(id);
      const today = clock.today();
      const mine = await deliveries.listOfBoats([id]);
      const readings = await boats.listReadings([id]);
      const names = new Map((await people.list()).map((person) => [person.id, person.name]));
      return {
        id,
        name: boat.name,
        hull: boat.hull,
        rig: rigService.read(boat.rigText),
        inService: boat.inService,
        buyers: buyersOf(id, mine),
        today,
        deliveries: mine.map(({ id: delivery, date, time, summary }) => ({
          id: delivery,
          date,
          time,
          state: summary.state,
        })),
        ...(await careReader.describe(boat)),
        contact: contactSchema.parse(JSON.parse(boat.contact)),
        readings: readings.map(
          ({ boatId: _, by, ...reading }) => ({ ...reading, by: names.get(by) ?? by }) as Boat["readings"][number],
        ),
        owed: mine.flatMap((delivery) => describeOwed(delivery, boat)),
      };
    },

    async addReading(id: string, author: string, reading: BodyOf<typeof endpoints.addReading>) {
      await database.inTransaction(async (transaction) => {
        const boat = await find(id, transaction);
        checkCared(boat);
        checkHours(boat, reading.engine, reading.date);
        const earlier = await boats.listReadings([id], transaction);
        if (earlier.some((other) => other.id === reading.id)) return;
        const meter = rigService.read(boat.rigText).engines.find((engine) => engine.id === reading.engine)?.meter;
        const asked = askReading(readingsOf({ readings: earlier.map(toReading) }, reading.engine), reading, meter);
        if (asked !== null && reading.answer === undefined) {
          const facts = { path: "hours", got: reading.hours, before: asked.beforeH, on: asked.on };
          if (asked.code === "falls") throw new Failure("hours-fall", facts);
          throw new Failure("hours-leap", { ...facts, perDay: asked.perDayH });
        }
        const { answer = null, reason = null, photo = null, ...rest } = reading;
        // An answer to a question that was not asked says nothing.
        const stands = asked === null ? null : answer;
        await boats.addReading({ ...rest, boatId: id, reason, photo, answer: stands, by: author }, transaction);
        // Asked for their hours, they have reported them.
        for (const kind of ["ask-hours", "break-in-end"])
          await messages.noteAnswer(id, kind, `${reading.hours} h`, transaction);
      });
    },

    async addFill(id: string, author: string, fill: NewFill) {
      await database.inTransaction(async (transaction) => {
        const boat = await find(id, transaction);
        if (boat.inService === null) throw new Failure("not-delivered", { boat: id });
        checkDay(boat, fill.date);
        const holds = sumTanks(rigService.read(boat.rigText));
        if (holds > 0 && fill.litres > holds * overBrim) {
          const message = `is more than the tanks hold, ${holds} L`;
          throw new Failure("invalid-input", { issues: [{ path: "litres", message }] });
        }
        const earlier = await boats.listFills([id], transaction);
        if (earlier.some((other) => other.id === fill.id)) return;
        await boats.addFill({ ...fill, isFull: fill.isFull ? 1 : 0, boatId: id, by: author }, transaction);
      });
    },

    async removeFill(id: string, fill: string) {
      await database.inTransaction(async (transaction) => {
        await find(id, transaction);
        if (!(await boats.removeFill(id, fill, transaction)))
          throw new Failure("not-found", { what: "fill", id: fill });
      });
    },

    async addRun(id: string, author: string, run: NewRun, source: "file" | "owner") {
      return runService.add(id, author, run, source);
    },

    async addService(id: string, user: Person, service: BodyOf<typeof endpoints.addService>) {
      await database.inTransaction(async (transaction) => {
        const boat = await find(id, transaction);
        checkCared(boat);
        if (service.engine !== boatScope) checkHours(boat, service.engine, service.date);
        checkDay(boat, service.date);
        const question = await careReader.ask(boat, transaction);
        const scopes = listScopes(
          question,
          question.rig.engines.map((engine) => readEngineStatus(question, engine)),
        );
        if (
          !scopes.some(
            ({ id: scope, items }) => scope === service.engine && items.some((item) => item.id === service.item),
          )
        )
          throw new Failure("invalid-input", {
            issues: [{ path: "item", message: `no item "${service.item}" in this pack` }],
          });
        const earlier = await boats.listServices([id], transaction);
        if (earlier.some((other) => other.id === service.id)) return;
        const { photo = null, priceCents = null, file = null, fileName = null, ...rest } = service;
        if (file !== null && !(await files.has(file, transaction)))
          throw new Failure("not-found", { what: "file", id: file });
        const proof = { photo, file, fileName: file === null ? null : fileName };
        await boats.addService({ ...rest, ...proof, boatId: id, priceCents, by: user.name }, transaction);
      });
    },
  };
}

export type BoatService = ReturnType<typeof createBoatService>;

/** Characters 4 to 8 of a hull identification number: the builder's serial number, what people call the boat by. */
const serial = (boat: Pick<BoatRecord, "hull">) => boat.hull.slice(3, 8);

function buyersOf(boatId: string, sold: readonly DeliveryRecord[]): string {
  const last = sold.filter((delivery) => delivery.boatId === boatId).at(-1);
  return last === undefined ? "" : formatBuyers(last.buyers);
}

/** What is owed of these deliveries, what wants doing first at the top. */
function rankOwed(owing: readonly DeliveryRecord[], boats: ReadonlyMap<string, BoatRecord>, today: IsoDate) {
  return owing
    .flatMap((delivery) => {
      const lines = describeOwed(delivery, boats.get(delivery.boatId)!);
      return delivery.summary.owed.map((owed, i) => ({ owed, line: lines[i]! }));
    })
    .sort((a, b) => compareOwed(a.owed, b.owed, today))
    .map(({ line }) => line);
}

function describeOwed(delivery: DeliveryRecord, boat: BoatRecord): Today["owed"] {
  return delivery.summary.owed.map(({ ref, what, text, since, severity, owner, due, messagedAt, topic }) => ({
    boat: boat.id,
    boatName: boat.name,
    serial: serial(boat),
    delivery: delivery.id,
    ref,
    what,
    text,
    since: since.slice(0, 10),
    severity,
    owner,
    due,
    messagedAt,
    topic,
    buyers: formatBuyers(delivery.buyers),
  }));
}

function describeHandover(
  { delivery, boat, walk }: HandoverContext,
  { visits, moves, totalMin }: Plan,
  library: Library,
): Today["handovers"][number] {
  const { summary } = delivery;
  const { rig, makeReady: checks } = walk;
  const open = checks.filter(({ id }) => !summary.ready.includes(id));
  return {
    boat: boat.id,
    boatName: boat.name,
    serial: serial(boat),
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
    mustsOpen: summary.mustsOpen,
    mustsOf: summary.mustsOf,
    stopping: summary.stopping,
    style: findStyle(delivery.planOptions.style, library.ownStyles).name,
    stops: visits.length,
    moves,
    totalMin,
    state: summary.state,
  };
}

function describeDue({ boat, facts }: FleetBoat, buyers: string): Today["due"][number] {
  const { engine, title, due, likelyNowH, reportedH, reportedOn } = facts.next!;
  return {
    boat: boat.id,
    boatName: boat.name,
    serial: serial(boat),
    buyers,
    engine,
    title,
    likelyNowH,
    reportedH,
    reportedOn,
    due,
  };
}
