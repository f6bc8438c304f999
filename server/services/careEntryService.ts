import type { BodyOf, endpoints, NewFill, NewRun } from "../../api/index.ts";
import { boatScope, listScopes, readEngineStatus, readingsOf, sumTanks } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { askReading } from "../../core/hours/index.ts";
import { isTyped, sayAmount, type Typed } from "../../core/units/index.ts";
import type { Clock } from "../clock.ts";
import type { FillRow, ReadingRow, ServiceRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Messages } from "../messages.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Files } from "../repositories/files.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { Withdrawals } from "../repositories/withdrawals.ts";
import { type CareReader, toReading } from "./careReader.ts";
import { isKept } from "./isKept.ts";
import type { RigService } from "./rigService.ts";
import type { RunService } from "./runService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly withdrawals: Withdrawals;
  readonly careReader: CareReader;
  readonly runService: RunService;
  readonly messages: Messages;
  readonly rigService: RigService;
  readonly files: Files;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

type Reading = BodyOf<typeof endpoints.addReading>;
type Withdrawal = BodyOf<typeof endpoints.withdraw>;
type Own = { readonly since: LocalDate | null } | null;
/** Tanks hold a little more than their label, and filler hoses take some. */
const overBrim = 1.1;

/** What is entered about a boat's care: hours, runs, fuel, services; and what of it was wrong. Each is stored once, by its id. */
export function createCareEntryService(parts: Parts) {
  const { database, withdrawals, runService, clock } = parts;

  return {
    addReading: (boatId: string, by: string, { answer, reason, photo, ...rest }: Reading) =>
      database.inTransaction(async (transaction) => {
        const row = { ...rest, answer: answer ?? null, reason: reason ?? null, photo: photo ?? null, by };
        await keepReading(parts, await find(parts, boatId, transaction), row, transaction);
      }),

    addFill: (boatId: string, by: string, { isFull, typed, ...fill }: NewFill) =>
      database.inTransaction(async (transaction) => {
        const row = { ...fill, isFull: isFull ? 1 : 0, by, typed: keepTyped(typed, fill.litres) };
        await keepFill(parts, await find(parts, boatId, transaction), row, transaction);
      }),

    addRun: (boatId: string, by: string, run: NewRun, source: "file" | "owner") =>
      runService.add(boatId, by, run, source),

    addService: (boatId: string, by: string, service: BodyOf<typeof endpoints.addService>) =>
      database.inTransaction(async (transaction) => {
        const { photo = null, priceCents = null, file = null, fileName = null, labourH = null, ...rest } = service;
        const { parts: went = "", mechanic = "", ...said } = rest;
        const proof = { photo, file, fileName: file === null ? null : fileName };
        await keepService(
          parts,
          await find(parts, boatId, transaction),
          { ...said, ...proof, priceCents, labourH, parts: went, mechanic, by },
          transaction,
        );
      }),

    /**
     * What was entered wrong no longer counts, for a reason that stays with it; what is right may stand in its place. With a
     * run goes the reading it made. `own`: what others entered, or whoever had the boat before `since`, is not theirs to withdraw. Said twice, it is done once.
     */
    withdraw: (boatId: string, by: string, withdrawal: Withdrawal, own: Own = null) =>
      database.inTransaction(async (transaction) => {
        const { kind, id, reason, right = null } = withdrawal;
        const boat = await find(parts, boatId, transaction);
        const entered = await withdrawals.find(kind, id, transaction);
        if (entered === null || entered.boatId !== boatId) throw new Failure("not-found", { what: kind, id });
        const isTheirs = own === null || (entered.by === by && (own.since === null || entered.date >= own.since));
        if (!isTheirs) throw new Failure("not-allowed");
        if (await withdrawals.has(kind, id, transaction)) return;
        const row = { kind, id, boatId, reason, by, at: clock.now() };
        await withdrawals.add({ ...row, instead: right?.id ?? null }, transaction);
        const isReadToo = kind === "run" && (await withdrawals.find("reading", id, transaction)) !== null;
        if (isReadToo) await withdrawals.add({ ...row, kind: "reading", instead: null }, transaction);
        if (right !== null) await keepInstead(parts, boat, { ...withdrawal, right }, by, transaction);
      }),
  };
}

export type CareEntryService = ReturnType<typeof createCareEntryService>;

async function keepReading(parts: Parts, boat: BoatRecord, row: Omit<ReadingRow, "boatId">, transaction: Transaction) {
  const { boats, withdrawals, rigService, messages } = parts;
  const { id: boatId } = boat;
  checkCared(parts, boat);
  checkEngine(parts, boat, row.engine);
  checkDay(parts, boat, row.date);
  if (isKept(await withdrawals.find("reading", row.id, transaction), boat.id)) return;
  const earlier = await boats.listReadings([boatId], transaction);
  const meter = rigService.read(boat.rigText).engines.find((engine) => engine.id === row.engine)?.meter;
  const asked = askReading(readingsOf({ readings: earlier.map(toReading) }, row.engine), row, meter);
  if (asked !== null && row.answer === null) {
    const facts = { path: "hours", got: row.hours, before: asked.beforeH, on: asked.on };
    if (asked.code === "falls") throw new Failure("hours-fall", facts);
    throw new Failure("hours-leap", { ...facts, perDay: asked.perDayH });
  }
  // An answer to a question that was not asked says nothing.
  await boats.addReading({ ...row, boatId, answer: asked === null ? null : row.answer }, transaction);
  // Asked for their hours, they have reported them.
  for (const kind of ["ask-hours", "break-in-end"])
    await messages.noteAnswer(boatId, kind, `${row.hours} h`, transaction);
}

/** What was typed, to be kept beside its litres. Failure: `invalid-input` where it is another amount. */
function keepTyped(typed: Typed | undefined, litres: number): string | null {
  if (typed === undefined) return null;
  if (isTyped(typed, litres, "volume")) return JSON.stringify(typed);
  throw new Failure("invalid-input", { issues: [{ path: "typed", message: "must be the same amount as litres" }] });
}

async function keepFill(parts: Parts, boat: BoatRecord, row: Omit<FillRow, "boatId">, transaction: Transaction) {
  const { boats, withdrawals, rigService, settings } = parts;
  if (boat.inService === null) throw new Failure("not-delivered", { boat: boat.id });
  checkDay(parts, boat, row.date);
  const holds = sumTanks(rigService.read(boat.rigText));
  if (holds > 0 && row.litres > holds * overBrim) {
    const { region } = await settings.read();
    const message = `is more than the tanks hold, ${sayAmount(holds, "volume", region.units)}`;
    throw new Failure("invalid-input", { issues: [{ path: "litres", message }] });
  }
  if (isKept(await withdrawals.find("fill", row.id, transaction), boat.id)) return;
  await boats.addFill({ ...row, boatId: boat.id }, transaction);
}

async function keepService(parts: Parts, boat: BoatRecord, row: Omit<ServiceRow, "boatId">, transaction: Transaction) {
  const { boats, withdrawals, careReader, files } = parts;
  checkCared(parts, boat);
  if (row.engine !== boatScope) checkEngine(parts, boat, row.engine);
  checkDay(parts, boat, row.date);
  const question = await careReader.ask(boat, transaction);
  const statuses = question.rig.engines.map((engine) => readEngineStatus(question, engine));
  const scope = listScopes(question, statuses).find(({ id }) => id === row.engine);
  if (scope === undefined || !scope.items.some((item) => item.id === row.item))
    throw new Failure("invalid-input", { issues: [{ path: "item", message: `no item "${row.item}" in this pack` }] });
  if (isKept(await withdrawals.find("service", row.id, transaction), boat.id)) return;
  if (row.file !== null && !(await files.has(row.file, transaction)))
    throw new Failure("not-found", { what: "file", id: row.file });
  await boats.addService({ ...row, boatId: boat.id }, transaction);
}

/** Puts what is right in the place of what was entered wrong: the same but for its day and its number. */
async function keepInstead(
  parts: Parts,
  boat: BoatRecord,
  { kind, id, right }: Withdrawal & { right: NonNullable<Withdrawal["right"]> },
  by: string,
  transaction: Transaction,
) {
  const { boats } = parts;
  const { id: fresh, date, amount, answer = null } = right;
  if (kind === "reading") {
    const { boatId: _, ...row } = (await boats.getReading(id, transaction))!;
    return keepReading(parts, boat, { ...row, id: fresh, date, hours: amount, answer, by }, transaction);
  }
  if (kind === "fill") {
    const { boatId: _, ...row } = (await boats.getFill(id, transaction))!;
    return keepFill(
      parts,
      boat,
      { ...row, id: fresh, date, litres: amount, by, typed: keepTyped(right.typed, amount) },
      transaction,
    );
  }
  if (kind === "service") {
    const { boatId: _, ...row } = (await boats.getService(id, transaction))!;
    return keepService(parts, boat, { ...row, id: fresh, date, hours: amount, by }, transaction);
  }
  throw new Failure("invalid-input", { issues: [{ path: "right", message: "a run is logged anew, not changed" }] });
}

function checkDay(parts: Parts, boat: BoatRecord, date: LocalDate) {
  const { clock } = parts;
  if (date > clock.today()) throw new Failure("date-ahead", { path: "date", got: date, today: clock.today() });
  if (boat.inService !== null && date < boat.inService && !isUsed(parts, boat))
    throw new Failure("before-delivery", { path: "date", got: date, inService: boat.inService });
}

/** Care begins with the handover; of a used boat, with what was done on it before. */
function checkCared(parts: Parts, boat: BoatRecord) {
  if (boat.inService === null && !isUsed(parts, boat)) throw new Failure("not-delivered", { boat: boat.id });
}

const isUsed = ({ rigService }: Parts, boat: BoatRecord) => rigService.read(boat.rigText).used !== undefined;

function checkEngine({ rigService }: Parts, boat: BoatRecord, engine: string) {
  if (!rigService.read(boat.rigText).engines.some(({ id }) => id === engine))
    throw new Failure("invalid-input", {
      issues: [{ path: "engine", message: `no engine "${engine}" on this boat` }],
    });
}

async function find({ boats }: Parts, id: string, transaction: Transaction) {
  const boat = await boats.find(id, transaction);
  if (boat === null) throw new Failure("not-found", { what: "boat", id });
  return boat;
}
