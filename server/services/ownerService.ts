import { ulid } from "ulid";
import { type BoatCare, type Contact, type OwnerPage, ownerAuthor } from "../../api/index.ts";
import { cards, synonyms } from "../../content/index.ts";
import { createCards } from "../../core/card/index.ts";
import { listGearDates, registration } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { type Entry, type EntryKind, foldWalk, formatBuyers, isOwnersPhoto, ownerId } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Epochs } from "../keeping/epoch.ts";
import type { Messages } from "../messages.ts";
import { readLetterhead } from "../pdf/letterhead.ts";
import type { PackQuestion } from "../pdf/packPdf.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { Person } from "../repositories/people.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Settings } from "../repositories/settings.ts";
import { ownerPerson } from "./author.ts";
import type { BoatOwner } from "./calendarService.ts";
import type { CareReader } from "./careReader.ts";
import { contactOf } from "./contactOf.ts";
import type { DockCallService } from "./dockCallService.ts";
import { isResold, listFormer } from "./formerOwners.ts";
import type { HandoverService } from "./handoverService.ts";
import type { LanguageService } from "./languageService.ts";
import { linkPlace } from "./letters.ts";
import type { PackService } from "./packService.ts";
import type { TowingService } from "./towingService.ts";

interface Parts {
  readonly database: Database;
  readonly messages: Messages;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly ownerLinks: OwnerLinks;
  readonly handoverService: HandoverService;
  readonly careReader: CareReader;
  readonly dockCallService: DockCallService;
  readonly languageService: LanguageService;
  readonly packService: PackService;
  readonly towingService: Pick<TowingService, "describe">;
  readonly settings: { read(): Promise<Settings> };
  readonly photos: Pick<Photos, "find">;
  readonly epochs: Pick<Epochs, "isHeld">;
  readonly clock: Clock;
  /** Where this server is reached; null where nobody has said. */
  readonly origin: () => string | null;
}

/** What is the store's own business and not on the owner's page. */
const ours: ReadonlySet<EntryKind> = new Set<EntryKind>(["allow", "assign", "call", "ready"]);

/** The owner's private page: made, ended, read, and written to where it is theirs to write. */
export function createOwnerService(parts: Parts) {
  const { ownerLinks, handoverService, languageService, settings, clock } = parts;
  return {
    open: (token: string) => open(parts, token),
    /** The boat a token opens, and since when it is theirs; null where nobody had it before. */
    async openBoat(token: string) {
      const { deliveryId } = await open(parts, token);
      const { boat, delivery } = await handoverService.get(deliveryId);
      return { boat: boat.id, since: await findSince(parts, delivery) };
    },
    /** The boat whose calendar a token opens, what runs out aboard, and the words of its owner's language. */
    async openCalendar(token: string): Promise<BoatOwner & { readonly boat: string }> {
      const { deliveryId } = await open(parts, token);
      const { boat, delivery, walk, log } = await handoverService.get(deliveryId);
      const { gear } = foldWalk(walk.sealed?.entries ?? log.entries);
      return {
        boat: boat.id,
        book: await languageService.findBook(delivery.planOptions.language),
        gear: listGearDates(walk.rig.gear, gear, readOwnDates(boat), clock.today()),
      };
    },
    makeLink: (id: string, user: Person, options: { isRemote: boolean; send: boolean }) =>
      makeLink(parts, id, user, options),
    async endLink(delivery: string) {
      await handoverService.get(delivery);
      await ownerLinks.end(delivery, clock.now());
    },
    describe: (token: string) => describePage(parts, token),
    /** What their page is called as an app. */
    async describeApp(token: string): Promise<{ boatName: string; store: string }> {
      const { deliveryId } = await open(parts, token);
      const { boat } = await handoverService.get(deliveryId);
      return { boatName: boat.name, store: (await parts.settings.read()).store };
    },
    async setDate(token: string, { item, until }: { item: string; until: LocalDate | null }) {
      const { boat, rig } = await readBoat(parts, token);
      if (item !== registration && !rig.gear.some(({ id }) => id === item))
        throw new Failure("invalid-input", { issues: [{ path: "item", message: `no item "${item}" here` }] });
      await parts.database.inTransaction((transaction) => parts.boats.setGearDate(boat.id, item, until, transaction));
    },
    /** How they are reached. What the yard wrote down itself is not changed by it, only what is missing is filled in. */
    async setContact(token: string, said: Pick<Contact, "phone" | "email" | "optOut">) {
      const { boat } = await readBoat(parts, token);
      // What the yard writes down in the same moment is not lost: it is read where it is written.
      await parts.database.inTransaction(async (transaction) => {
        const known = contactOf((await parts.boats.find(boat.id, transaction)) ?? boat);
        const phone = known.phone || said.phone;
        const email = known.email || said.email;
        await parts.boats.setContact(boat.id, { name: known.name, phone, email, optOut: said.optOut }, transaction);
      });
    },
    describePack: (delivery: string, token: string | undefined) => describePack(parts, delivery, token),
    async addEntries(token: string, entries: readonly Entry[], deviceMs: number | undefined) {
      const { deliveryId, isRemote } = await open(parts, token);
      const via = isRemote === 1 ? "remote" : "owner";
      const { stored, known } = await handoverService.addEntries(deliveryId, ownerPerson, entries, { via, deviceMs });
      return { stored, known };
    },
    /** Whether a photo is one of this owner's handover. */
    async mayRead(token: string, photo: string): Promise<boolean> {
      const { deliveryId } = await open(parts, token);
      if (photo === (await settings.read()).logo) return true;
      const { entries, rig } = await handoverService.describe(deliveryId);
      return (
        entries.some(
          (entry) => entry.kind === "photo" && entry.photo === photo && (entry.by !== ownerId || isOwnersPhoto(photo)),
        ) || rig.parts.some((part) => part.photo === photo)
      );
    },
  };
}

export type OwnerService = ReturnType<typeof createOwnerService>;

async function open({ ownerLinks, clock }: Parts, token: string) {
  const link = await ownerLinks.find(token, clock.now());
  if (link === null) throw new Failure("link-ended");
  return link;
}

async function readBoat(parts: Parts, token: string) {
  const { deliveryId } = await open(parts, token);
  const { boat, walk } = await parts.handoverService.get(deliveryId);
  return { boat, rig: walk.rig };
}

const isUnreached = (boat: { readonly contact: string }) => {
  const { phone, email, optOut } = contactOf(boat);
  return phone === "" && email === "" && !optOut;
};

/**
 * Makes the page's address and, where it is wished, sends it to the buyer. Failures: `no-address`; `boat-resold`, where the boat has
 * been handed to others since.
 */
async function makeLink(
  parts: Parts,
  id: string,
  user: Person,
  { isRemote, send }: { isRemote: boolean; send: boolean },
) {
  const { database, deliveries, messages, ownerLinks, handoverService, settings, epochs, clock, origin } = parts;
  const { delivery, boat } = await handoverService.get(id);
  if (await isResold(deliveries, delivery)) throw new Failure("boat-resold");
  const host = origin();
  if (host === null) throw new Failure("no-address");
  const token = await ownerLinks.replace(id, user.id, clock.now(), isRemote);
  if (send) {
    const { store } = await settings.read();
    const what = isRemote ? "the walk round your boat, your cards and your record" : "your cards and your record";
    const write = (address: string) =>
      `${store}: your page for ${boat.name}, with ${what}: ${address} It is private; keep it to yourselves.`;
    const recipient = formatBuyers(delivery.buyers);
    const message = { id: ulid(), deliveryId: id, boatId: boat.id, kind: "link", recipient, at: clock.now() };
    await database.inTransaction(async (t) =>
      // The address of one that waits is made when it goes: what opens a page is nowhere kept.
      (await epochs.isHeld(t))
        ? messages.hold({ ...message, text: write(linkPlace) }, t)
        : messages.send({ ...message, text: write(`${host}/o/${token}`), secret: token }, t),
    );
  }
  return { token, address: `${host}/o/${token}` };
}

async function describePage(parts: Parts, token: string): Promise<OwnerPage> {
  const { boats, handoverService, careReader, packService, dockCallService, languageService, towingService } = parts;
  const { settings, clock } = parts;
  const { deliveryId } = await open(parts, token);
  const { colleagues: _, ...delivery } = await handoverService.describe(deliveryId);
  const { walk, delivery: record } = await handoverService.get(deliveryId);
  const since = await findSince(parts, record);
  const boat = (await boats.find(delivery.boat))!;
  const store = await settings.read();
  const today = clock.today();
  // As they were when the walk began; before that as they are now.
  const packs = walk.packs ?? (await packService.read());
  const { vehicle, rules } = await towingService.describe(delivery.boat);
  const { bookings: __, ...care } = ofThisOwner(await careReader.describe(boat), since);
  return {
    store: store.store,
    phone: store.phone,
    logo: store.logo,
    timeZone: clock.timeZone,
    region: store.region,
    today,
    cards,
    breakInPacks: packs.breakIn.filter(({ id }) => delivery.rig.engines.some((engine) => engine.breakInPack === id)),
    servicePacks: packs.service.filter(({ id }) => delivery.rig.engines.some((engine) => engine.servicePack === id)),
    delivery: {
      ...delivery,
      note: "",
      forgotten: {},
      next: null,
      makeReady: [],
      entries: delivery.entries.filter(({ kind }) => !ours.has(kind)),
    },
    inService: boat.inService,
    gearDates: readOwnDates(boat),
    isUnreached: isUnreached(boat),
    synonyms,
    book: await languageService.findBook(record.planOptions.language),
    towing: { vehicle, rules },
    learnedFaults: await dockCallService.readLearned(delivery.rig.family),
    ...care,
  };
}

/** Until when what is aboard is good, as its owner entered it. */
const readOwnDates = ({ gearDates }: Pick<BoatRecord, "gearDates">) => JSON.parse(gearDates) as OwnerPage["gearDates"];

/** Since when a boat is theirs, where others had it of us before; null else. */
async function findSince({ deliveries }: Parts, delivery: DeliveryRecord): Promise<LocalDate | null> {
  const former = listFormer(delivery, await deliveries.listOfBoats([delivery.boatId]));
  return former.length === 0 ? null : delivery.date;
}

/** Runs, fuel and corrections of whoever had the boat before are theirs; services and hours belong to the boat. */
function ofThisOwner(care: BoatCare, since: LocalDate | null): BoatCare {
  const isTheirs = ({ date }: { date: LocalDate }) => since === null || date >= since;
  return {
    ...care,
    runs: care.runs.filter(isTheirs),
    fills: care.fills.filter(isTheirs),
    withdrawn: care.withdrawn.filter(({ by }) => by === ownerAuthor).filter(isTheirs),
  };
}

/** What an owner pack is printed from; the address on its label only for a token that opens this very handover. */
async function describePack(
  parts: Parts,
  delivery: string,
  token: string | undefined,
): Promise<Omit<PackQuestion, "paper" | "layout">> {
  const { handoverService, languageService, packService, settings, photos, origin } = parts;
  const { walk, log, delivery: record } = await handoverService.get(delivery);
  const { rig, boatName, hull } = walk;
  const { store, place, phone, region, picture } = await readLetterhead(settings, photos);
  const packs = walk.packs ?? (await packService.read());
  const book = (await languageService.findBook(record.planOptions.language)) ?? undefined;
  const link = token === undefined ? null : await open(parts, token);
  if (link !== null && link.deliveryId !== delivery) throw new Failure("link-ended");
  return {
    cards: createCards(cards, {
      rig,
      boatName,
      hull,
      store,
      phone,
      breakInPacks: packs.breakIn,
      servicePacks: packs.service,
      gear: foldWalk(walk.sealed?.entries ?? log.entries).gear,
      idiom: { ...region, book },
      emergency: region.emergency,
    }),
    language: book?.language ?? "en",
    book: book ?? null,
    rig,
    boatName,
    hull,
    store,
    place,
    phone,
    picture,
    ownerAddress: token === undefined || origin() === null ? null : `${origin()}/o/${token}`,
  };
}
