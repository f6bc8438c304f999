import { contactSchema } from "../../api/careSchemas.ts";
import type { CallList, CareLine, MessageLine } from "../../api/index.ts";
import { messageTemplates } from "../../content/index.ts";
import { type CareFacts, rankCare } from "../../core/aftercare/index.ts";
import { addDays, dayOf, type Instant, type LocalDate, minutesOfDay, msAt, toInstant } from "../../core/dates/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Jobs, NewJob } from "../jobs.ts";
import type { Messages } from "../messages.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { FleetBoat, FleetCare } from "./fleetCare.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly ownerLinks: OwnerLinks;
  readonly messages: Messages;
  readonly fleetCare: FleetCare;
  readonly jobs: Jobs;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
  /** Where this server is reached, for addresses in messages; null where nobody has said. */
  readonly origin: () => string | null;
}

export interface NewMessage {
  readonly id: string;
  readonly kind: string;
  readonly text: string;
  readonly withLink: boolean;
}

const mostLines = 120;
const mostJobs = 30;
const linkPlace = "{link}";
const morningMin = 10 * 60;
const contactAfterDays = 2;
const contactOf = (boat: BoatHead) => contactSchema.parse(JSON.parse(boat.contact));

/** What a boat is ranked by besides what is known of its engines. One without promises has `noPromises`, always the same. */
type Asked = Pick<CareFacts, "lastContact" | "isBooked" | "latePromises">;
const noPromises: CareFacts["latePromises"] = [];

/** The call list, and what is written to them, by hand or by the server itself. */
export function createAftercareService(parts: Parts) {
  const { database, boats, deliveries, bookings, ownerLinks, messages, fleetCare, jobs, settings, clock, origin } =
    parts;
  const nowIso = () => clock.now();
  const isQuiet = async () => {
    const { from, to } = (await settings.read()).quietHours;
    const hour = minutesOfDay(clock.nowMs(), clock.timeZone) / 60;
    return from <= to ? from <= hour && hour < to : hour >= from || hour < to;
  };
  const getBoat = async (id: string, transaction?: Transaction) => {
    const boat = await boats.find(id, transaction);
    if (boat === null) throw new Failure("not-found", { what: "boat", id });
    return boat;
  };
  /** Who is written to: the buyers of the last handover, or whom the contact names. */
  const findRecipient = async (boat: BoatHead) => {
    const last = (await deliveries.listOfBoats([boat.id])).at(-1);
    const buyers = last === undefined ? [contactOf(boat)] : last.buyers;
    return { deliveryId: last?.id ?? null, recipient: formatBuyers(buyers), buyers };
  };
  /** Sends now, with the address of their page where the text has its place; `at` is when it was written. */
  const carry = async (
    message: Omit<NewMessage, "withLink"> & { at: Instant },
    boat: string,
    by: string,
    t: Transaction,
  ) => {
    const { deliveryId, recipient } = await findRecipient(await getBoat(boat, t));
    const base = {
      id: message.id,
      deliveryId,
      boatId: boat,
      kind: message.kind,
      recipient,
      at: message.at,
    };
    // Sent by hand, the address is made when somebody takes the message up.
    if (!message.text.includes(linkPlace) || !messages.isCarried)
      return messages.send({ ...base, text: message.text }, t);
    if (deliveryId === null) throw new Failure("no-owner-page", { boat });
    const address = origin();
    if (address === null) throw new Failure("no-address");
    const secret = await ownerLinks.add(deliveryId, by, nowIso(), t);
    await messages.send({ ...base, text: message.text.replaceAll(linkPlace, `${address}/o/${secret}`), secret }, t);
  };
  /** What ships, with the store's own words laid over it. */
  const readTemplates = async () => {
    const { messageTexts } = await settings.read();
    return messageTemplates.map((each) => ({ ...each, text: messageTexts[each.id] ?? each.text }));
  };
  const fill = async (template: string, boat: BoatHead) => {
    const { store, phone } = await settings.read();
    const { buyers } = await findRecipient(boat);
    const names: Record<string, string> = {
      buyers: formatBuyers(buyers.map(({ name }) => ({ name: name.split(" ")[0]! }))),
      store,
      phone,
      boat: boat.name,
    };
    return (await readTemplates())
      .find(({ id }) => id === template)!
      .text.replace(/\{(\w+)\}/g, (place, name: string) => names[name] ?? place);
  };
  const writeByItself = (template: string) => async (job: { id: string; boatId: string }, t: Transaction) => {
    const boat = await getBoat(job.boatId, t);
    if (contactOf(boat).optOut) return "not sent: they do not want to be written to";
    const message = { id: `job-${job.id}`, kind: template, text: await fill(template, boat), at: nowIso() };
    if (await isQuiet()) {
      const { deliveryId, recipient } = await findRecipient(boat);
      await messages.hold({ ...message, deliveryId, boatId: boat.id, recipient }, t);
      return "waits for the morning";
    }
    await carry(message, boat.id, "ravik", t);
    return "sent";
  };
  jobs.on("hello", writeByItself("hello"));
  jobs.on("break-in-end", writeByItself("break-in-end"));

  /** Ranked once for as long as nothing of a boat changes: of a large fleet hardly anything has since the last look. */
  const ranks = new WeakMap<FleetBoat, { asked: Asked; today: LocalDate; answer: ReturnType<typeof rankCare> }>();
  const rank = (one: FleetBoat, asked: Asked, today: LocalDate) => {
    const known = ranks.get(one);
    const isSame =
      known !== undefined &&
      known.today === today &&
      known.asked.lastContact === asked.lastContact &&
      known.asked.isBooked === asked.isBooked &&
      known.asked.latePromises === asked.latePromises;
    if (isSame) return known.answer;
    const answer = rankCare({ ...one.facts, ...asked }, today);
    ranks.set(one, { asked, today, answer });
    return answer;
  };

  return {
    async describe(): Promise<CallList> {
      const today = clock.today();
      const [fleet, overdue, last, contacts, booked, listed] = await Promise.all([
        fleetCare.read(),
        deliveries.listLate(today),
        messages.listLast(),
        messages.listContacts(),
        bookings.list(today),
        jobs.list(mostJobs),
      ]);
      const late = new Map<string, { text: string; due: LocalDate }[]>();
      for (const { boatId, text, due } of overdue) late.set(boatId, [...(late.get(boatId) ?? []), { text, due }]);
      const bookingOf = new Map(booked.filter(({ state }) => state === "booked").map((each) => [each.boat, each]));
      const ranked = fleet.flatMap((one) => {
        const lastMessage = last.get(one.boat.id) ?? null;
        const reachedAt = contacts.get(one.boat.id);
        const lastContact = reachedAt === undefined ? null : dayOf(reachedAt, clock.timeZone);
        const { weight, reasons } = rank(
          one,
          { lastContact, isBooked: bookingOf.has(one.boat.id), latePromises: late.get(one.boat.id) ?? noPromises },
          today,
        );
        return reasons.length === 0 ? [] : [{ one, weight, reasons, lastMessage }];
      });
      ranked.sort((a, b) => b.weight - a.weight || (a.one.boat.id < b.one.boat.id ? -1 : 1));
      // Only of those that are shown, people and slots are looked up.
      const shown = ranked.slice(0, mostLines);
      const sold = await deliveries.listOfBoats(shown.map(({ one }) => one.boat.id));
      const soldOf = new Map(sold.map((delivery) => [delivery.boatId, delivery]));
      const lines = shown.map(({ one, weight, reasons, lastMessage }): CareLine => {
        const { boat, reportedH, likelyNowH, reportedOn } = one;
        const delivery = soldOf.get(boat.id);
        const contact = contactOf(boat);
        return {
          boat: boat.id,
          boatName: boat.name,
          serial: serialOf(boat.hull),
          buyers: delivery === undefined ? contact.name : formatBuyers(delivery.buyers),
          contact,
          delivery: delivery?.id ?? null,
          weight,
          reasons,
          reportedH,
          likelyNowH,
          reportedOn,
          lastMessage,
          booking: bookingOf.get(boat.id) ?? null,
        };
      });
      const named = await boats.listHeads(listed.map(({ boatId }) => boatId));
      const nameOf = new Map(named.map((boat) => [boat.id, boat.name]));
      const { store, phone } = await settings.read();
      return {
        date: today,
        lines,
        linesInAll: ranked.length,
        boats: fleet.length,
        templates: await readTemplates(),
        store,
        phone,
        jobs: listed.map(({ id, kind, boatId, dueAtMs, state, tries, note, doneAt }) => ({
          id,
          kind,
          boat: boatId,
          boatName: nameOf.get(boatId) ?? boatId,
          dueAt: doneAt ?? toInstant(dueAtMs),
          state,
          tries,
          note,
        })),
      };
    },

    /** Writes to a boat's people, or notes a call. In quiet hours it waits for the morning. */
    async send(boatId: string, by: string, { id, kind, text, withLink }: NewMessage): Promise<MessageLine> {
      const isLate = await isQuiet();
      await database.inTransaction(async (transaction) => {
        const boat = await getBoat(boatId, transaction);
        const at = nowIso();
        const { deliveryId, recipient } = await findRecipient(boat);
        const base = { id, deliveryId, boatId, kind, recipient, text, at };
        if (kind === "call") return messages.noteCall(base, transaction);
        if (contactOf(boat).optOut) throw new Failure("opted-out", { boat: boatId });
        if (withLink && !text.includes(linkPlace))
          throw new Failure("invalid-input", {
            issues: [{ path: "text", message: `has no place for the address, ${linkPlace}` }],
          });
        if (deliveryId === null && text.includes(linkPlace)) throw new Failure("no-owner-page", { boat: boatId });
        if (isLate) return messages.hold(base, transaction);
        await carry({ id, kind, text, at }, boatId, by, transaction);
      });
      return (await messages.listOfBoat(boatId)).find((message) => message.id === id)!;
    },

    /** A message that is ready, as it is to be sent: the address of their page is made now, and shown this once. */
    async prepare(boatId: string, id: string, by: string): Promise<{ text: string; phone: string }> {
      return database.inTransaction(async (transaction) => {
        const boat = await getBoat(boatId, transaction);
        const message = await messages.find(id, transaction);
        if (message === null || message.boatId !== boatId || message.state !== "ready")
          throw new Failure("not-found", { what: "message", id });
        if (contactOf(boat).optOut) throw new Failure("opted-out", { boat: boatId });
        const { phone } = contactOf(boat);
        if (!message.text.includes(linkPlace)) return { text: message.text, phone };
        const address = origin();
        if (address === null) throw new Failure("no-address");
        if (message.deliveryId === null) throw new Failure("no-owner-page", { boat: boatId });
        const secret = await ownerLinks.add(message.deliveryId, by, nowIso(), transaction);
        return { text: message.text.replaceAll(linkPlace, `${address}/o/${secret}`), phone };
      });
    },

    async markSent(boatId: string, id: string) {
      await database.inTransaction(async (transaction) => {
        const message = await messages.find(id, transaction);
        if (message === null || message.boatId !== boatId) throw new Failure("not-found", { what: "message", id });
        await messages.markSent(id, transaction);
      });
    },

    async setTexts(texts: Record<string, string>) {
      const unknown = Object.keys(texts).find((id) => !messageTemplates.some((each) => each.id === id));
      if (unknown !== undefined)
        throw new Failure("invalid-input", { issues: [{ path: `texts.${unknown}`, message: "is no template" }] });
      await settings.change({ messageTexts: texts });
    },

    listMessages: (boat: string) => messages.listOfBoat(boat),

    async setContact(id: string, contact: Parameters<Boats["setContact"]>[1]) {
      await getBoat(id);
      await boats.setContact(id, contact);
    },

    /** What the server plans by itself: the first contact after a handover, and the end of a break-in. */
    async planJobs() {
      const today = clock.today();
      const planned: NewJob[] = [];
      for (const { boat, facts, reportedH, breakInH } of await fleetCare.read()) {
        const contactOn = addDays(facts.inService, contactAfterDays);
        if (contactOn >= addDays(today, -1))
          planned.push({
            id: `hello:${boat.id}:${facts.inService}`,
            kind: "hello",
            boatId: boat.id,
            dueAtMs: msAt(contactOn, morningMin, clock.timeZone),
          });
        const ends = facts.engines.find(({ isBreakInDone }) => !isBreakInDone)?.breakInEnds?.date;
        const isEnding = ends != null && ends <= addDays(today, 3);
        if (isEnding && reportedH !== null && breakInH !== null)
          planned.push({
            id: `break-in-end:${boat.id}`,
            kind: "break-in-end",
            boatId: boat.id,
            dueAtMs: msAt(ends < today ? addDays(today, 1) : ends, morningMin, clock.timeZone),
          });
      }
      await jobs.plan(planned);
    },

    /** What waited for the morning goes out; what went out is followed up. */
    async carryOn() {
      const failures: unknown[] = [];
      if (!(await isQuiet()))
        for (const { id, kind, text, at, boatId } of await messages.listHeld())
          await database
            .inTransaction(async (transaction) => {
              // Whoever has said meanwhile that they want no messages gets none.
              if (contactOf(await getBoat(boatId, transaction)).optOut) return messages.stop(id, transaction);
              return carry({ id, kind, text, at }, boatId, "ravik", transaction);
            })
            .catch((error: unknown) => failures.push(error));
      const listReached = async (ids: readonly string[]) =>
        new Set((await boats.listHeads(ids)).flatMap((boat) => (contactOf(boat).phone === "" ? [] : [boat.id])));
      await database.inTransaction((transaction) => messages.settle(listReached, transaction));
      // One that cannot be sent holds up none of the others, and is said.
      if (failures.length > 0) throw failures[0];
    },
  };
}

export type AftercareService = ReturnType<typeof createAftercareService>;
