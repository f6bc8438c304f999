import type { AnswerOf, endpoints, MessageLine, MessageList } from "../../api/index.ts";
import { messageTemplates } from "../../content/index.ts";
import { type Instant, type LocalDate, minutesOfDay } from "../../core/dates/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { formatFirstNames, unnamedOwner } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Epochs } from "../keeping/epoch.ts";
import type { Messages } from "../messages.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { createSettings } from "../repositories/settings.ts";
import { contactOf } from "./contactOf.ts";
import { isForOthers } from "./formerOwners.ts";
import { sayPeople } from "./nameBoat.ts";

export interface LetterParts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly ownerLinks: OwnerLinks;
  readonly messages: Messages;
  readonly settings: ReturnType<typeof createSettings>;
  readonly epochs: Epochs;
  readonly clock: Clock;
  /** Where this server is reached, for addresses in messages; null where nobody has said. */
  readonly origin: () => string | null;
}

export interface NewMessage {
  readonly id: string;
  readonly kind: string;
  readonly text: string;
  readonly withLink: boolean;
  /** Of a call: when they want to be called again. */
  readonly callBackOn?: LocalDate | undefined;
  /** The handover it is of; left out: the last of the boat. */
  readonly of?: DeliveryRecord | undefined;
}

/** Where the address of their page comes into a text. */
export const linkPlace = "{link}";
/** Of a message that takes a buyer their record: it is of one handover, whatever came after. */
export const recordKind = "record";
/** Messages of one page of the list. */
const pageSize = 60;

/** How a message gets its words, its reader and its address, and when it may go. */
export function createPostOffice(parts: LetterParts) {
  const { ownerLinks, messages, settings, clock, origin } = parts;
  /** Sends now, with the address of their page where the text has its place; `at` is when it was written. */
  const carry = async (
    message: Omit<NewMessage, "withLink"> & { at: Instant },
    boat: string,
    by: string,
    t: Transaction,
  ) => {
    const { deliveryId, recipient } = await findRecipient(parts, await getBoat(parts, boat, t), message.of);
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
    const secret = await ownerLinks.add(deliveryId, by, clock.now(), t);
    await messages.send({ ...base, text: message.text.replaceAll(linkPlace, `${address}/o/${secret}`), secret }, t);
  };
  const fill = async (template: string, boat: BoatHead, of?: DeliveryRecord) => {
    const { store, phone } = await settings.read();
    const { recipient } = await findRecipient(parts, boat, of);
    const names: Record<string, string> = {
      buyers: formatFirstNames(recipient),
      store,
      phone,
      boat: boat.name,
    };
    return (await readTemplates(parts))
      .find(({ id }) => id === template)!
      .text.replace(/\{(\w+)\}/g, (place, name: string) => names[name] ?? place);
  };
  return {
    mustWait: () => mustWait(parts),
    getBoat: (id: string, transaction?: Transaction) => getBoat(parts, id, transaction),
    findRecipient: (boat: BoatHead, of?: DeliveryRecord) => findRecipient(parts, boat, of),
    readTemplates: () => readTemplates(parts),
    carry,
    fill,
  };
}
export type PostOffice = ReturnType<typeof createPostOffice>;

/** What people of the store write to a boat's people. */
export function createLetters(parts: LetterParts, { mustWait, getBoat, findRecipient, carry, fill }: PostOffice) {
  const { database, boats, deliveries, ownerLinks, messages, settings, clock, origin } = parts;
  const letters = {
    /** Writes to a boat's people, or notes a call. In quiet hours it waits for the morning, after a restore for the owner. */
    async send(
      boatId: string,
      by: string,
      { id, kind, text, withLink, callBackOn, of }: NewMessage,
    ): Promise<MessageLine> {
      const isToWait = await mustWait();
      await database.inTransaction(async (transaction) => {
        const boat = await getBoat(boatId, transaction);
        const at = clock.now();
        const { deliveryId, recipient } = await findRecipient(boat, of);
        const base = { id, deliveryId, boatId, kind, recipient, text, at };
        if (kind === "call") {
          const callBack = callBackOn === undefined ? null : { on: callBackOn, note: text, by };
          await boats.setCallBack(boatId, callBack, transaction);
          return messages.noteCall(base, transaction);
        }
        if (contactOf(boat).optOut) throw new Failure("opted-out", { boat: boatId });
        if (withLink && !text.includes(linkPlace))
          throw new Failure("invalid-input", {
            issues: [{ path: "text", message: `has no place for the address, ${linkPlace}` }],
          });
        if (deliveryId === null && text.includes(linkPlace)) throw new Failure("no-owner-page", { boat: boatId });
        if (isToWait) return messages.hold(base, transaction);
        await carry({ id, kind, text, at, of }, boatId, by, transaction);
      });
      return (await messages.listOfBoat(boatId)).find((message) => message.id === id)!;
    },

    /**
     * Their record to whom it is of, with the page of that very handover. Failures: `not-sealed`; `boat-resold`, also where it is planned for
     * others, whose number the boat may bear by now; `no-contact`; those of `send`.
     */
    async sendRecord(deliveryId: string, by: string, id: string): Promise<MessageLine> {
      const delivery = await deliveries.find(deliveryId);
      if (delivery === null) throw new Failure("not-found", { what: "delivery", id: deliveryId });
      if (delivery.summary.state !== "signed") throw new Failure("not-sealed");
      if (await isForOthers(deliveries, delivery)) throw new Failure("boat-resold");
      const boat = await getBoat(delivery.boatId);
      const { phone, email } = contactOf(boat);
      if (phone === "" && (messages.isCarried || email === "")) throw new Failure("no-contact");
      const text = await fill(recordKind, boat, delivery);
      return letters.send(boat.id, by, { id, kind: recordKind, text, withLink: true, of: delivery });
    },

    /** A message that is ready, as it is to be sent: the address of their page is made now, and shown this once. */
    async prepare(boatId: string, id: string, by: string): Promise<AnswerOf<typeof endpoints.prepareMessage>> {
      return database.inTransaction(async (transaction) => {
        const boat = await getBoat(boatId, transaction);
        const message = await messages.find(id, transaction);
        if (message === null || message.boatId !== boatId || message.state !== "ready")
          throw new Failure("not-found", { what: "message", id });
        if (contactOf(boat).optOut) throw new Failure("opted-out", { boat: boatId });
        const of =
          message.kind === recordKind && message.deliveryId !== null ? await deliveries.find(message.deliveryId) : null;
        if (of !== null && (await isForOthers(deliveries, of))) throw new Failure("boat-resold");
        const { phone, email } = contactOf(boat);
        const subject = `${(await settings.read()).store}: ${boat.name}`;
        if (!message.text.includes(linkPlace)) return { text: message.text, subject, phone, email, address: null };
        const address = origin();
        if (address === null) throw new Failure("no-address");
        if (message.deliveryId === null) throw new Failure("no-owner-page", { boat: boatId });
        const secret = await ownerLinks.add(message.deliveryId, by, clock.now(), transaction);
        const page = `${address}/o/${secret}`;
        return { text: message.text.replaceAll(linkPlace, page), subject, phone, email, address: page };
      });
    },

    /** Messages of all boats, a page at a time. */
    async listPage(asked: { find: string; state: MessageLine["state"] | "all"; page: number }): Promise<MessageList> {
      const state = asked.state === "all" ? null : asked.state;
      const { rows, states } = await messages.listPage({
        find: asked.find,
        state,
        from: asked.page * pageSize,
        limit: pageSize,
      });
      const byId = await boats.findMany([...new Set(rows.map(({ boatId }) => boatId))]);
      const found = Object.entries(states).reduce(
        (sum, [each, n]) => (state === null || each === state ? sum + n : sum),
        0,
      );
      return {
        messages: rows.map(({ deliveryId: _, boatId, ...row }) => {
          const boat = byId.get(boatId)!;
          const { phone, optOut } = contactOf(boat);
          const serial = serialOf(boat.hull);
          return { ...(row as MessageLine), boat: boatId, boatName: boat.name, serial, reach: phone, optOut };
        }),
        found,
        states,
        pageSize,
      };
    },

    async stop(boatId: string, id: string) {
      await database.inTransaction(async (transaction) => {
        const message = await messages.find(id, transaction);
        if (message === null || message.boatId !== boatId) throw new Failure("not-found", { what: "message", id });
        if (message.state !== "waiting" && message.state !== "ready")
          throw new Failure("message-gone", { state: message.state });
        await messages.stop(id, transaction);
      });
    },

    /** Once more, with the address of their page made anew: the one it had was never kept. */
    async sendAgain(boatId: string, id: string, by: string, newId: string): Promise<MessageLine> {
      const message = await messages.find(id);
      if (message === null || message.boatId !== boatId) throw new Failure("not-found", { what: "message", id });
      if (message.state !== "failed" && message.state !== "stopped")
        throw new Failure("message-gone", { state: message.state });
      if (message.kind === recordKind && message.deliveryId !== null)
        return letters.sendRecord(message.deliveryId, by, newId);
      const text = message.text.replace(/\S*\/o\/…/g, linkPlace);
      return letters.send(boatId, by, { id: newId, kind: message.kind, text, withLink: false });
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
  };
  return letters;
}

/** In quiet hours nothing goes out, nor before the owner of a store that was put back has let it. */
async function mustWait({ settings, epochs, clock }: LetterParts) {
  if (await epochs.isHeld()) return true;
  const { from, to } = (await settings.read()).quietHours;
  const hour = minutesOfDay(clock.nowMs(), clock.timeZone) / 60;
  return from <= to ? from <= hour && hour < to : hour >= from || hour < to;
}

/** What ships, with the store's own words laid over it. */
async function readTemplates({ settings }: LetterParts) {
  const { messageTexts } = await settings.read();
  return messageTemplates.map((each) => ({ ...each, text: messageTexts[each.id] ?? each.text }));
}

/** Who is written to: the buyers of this or the last handover, or whom the contact names. */
async function findRecipient({ deliveries }: LetterParts, boat: BoatHead, of?: DeliveryRecord) {
  const last = of ?? (await deliveries.listOfBoats([boat.id])).at(-1);
  return { deliveryId: last?.id ?? null, recipient: sayPeople(boat, last?.buyers ?? null) || unnamedOwner };
}

async function getBoat({ boats }: LetterParts, id: string, transaction?: Transaction) {
  const boat = await boats.find(id, transaction);
  if (boat === null) throw new Failure("not-found", { what: "boat", id });
  return boat;
}
