import { type BuyerSheet, endpoints, type ForgottenSheet } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { photoFile } from "../../core/record/index.ts";
import { struckName } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Boats } from "../repositories/boats.ts";
import { type BuyerHandover, type Buyers, nameKey } from "../repositories/buyers.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Files } from "../repositories/files.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { Photos } from "../repositories/photos.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { createTowing } from "../repositories/towing.ts";
import { writeZip } from "../zip.ts";
import type { BundleService } from "./bundleService.ts";
import { contactOf } from "./contactOf.ts";
import { isFirstFormat, listPhotos } from "./sealing.ts";
import { listTheirs, namesThem, type StrikeService, wordsOf } from "./strikeService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly buyers: Buyers;
  readonly chain: Pick<Chain, "findSeal">;
  readonly photos: Pick<Photos, "findSealed">;
  readonly files: Pick<Files, "find">;
  readonly ownerLinks: Pick<OwnerLinks, "endAllOf">;
  readonly towing: Pick<ReturnType<typeof createTowing>, "find">;
  readonly settings: ReturnType<typeof createSettings>;
  readonly strikeService: StrikeService;
  readonly bundleService: Pick<BundleService, "writeBundle">;
  readonly clock: Clock;
}

/** Notes that still name them are listed so far. */
const mostNamed = 50;
const contactWords = endpoints.setContact.summary;

/** One boat of theirs, and whether it still is; else the day on which somebody else had it. */
interface Owned {
  readonly boat: string;
  readonly isTheirs: boolean;
  readonly until: LocalDate | null;
}

/** A buyer as the store knows them: all that is held, as a file, and forgotten. Failure: `not-found`. */
export function createBuyerService(parts: Parts) {
  return {
    read: (delivery: string, person: string) => readSheet(parts, delivery, person),
    writeFile: (delivery: string, person: string) => writeFile(parts, delivery, person),
    forget: (delivery: string, person: string, by: string, wish: ForgetWish) =>
      forget(parts, delivery, person, { ...wish, by }),
  };
}

export type BuyerService = ReturnType<typeof createBuyerService>;

interface ForgetWish {
  /** In which handovers; all of them are theirs. */
  readonly deliveries: readonly string[];
  /** The photos of those too. */
  readonly photos: boolean;
  /** How they are reached, their gear's dates and their car, of the boats that are theirs. */
  readonly contact: boolean;
  readonly reason: string;
}

/** Who is meant, and every handover to them. */
async function findBuyer({ deliveries, buyers }: Parts, id: string, person: string, t?: Transaction) {
  const delivery = await deliveries.find(id, t);
  const name = delivery?.buyers.find((buyer) => buyer.id === person)?.name;
  if (name === undefined || name === struckName) throw new Failure("not-found", { what: "buyer", id: person });
  return { name, handovers: await buyers.listHandovers(name, t) };
}

/** Their boats, each once: theirs while its last handover is to them. */
async function listOwned({ deliveries }: Parts, name: string, handovers: readonly BuyerHandover[], t?: Transaction) {
  const ids = [...new Set(handovers.map(({ boat }) => boat))];
  const all = await deliveries.listOfBoats(ids, t);
  return ids.map((boat): Owned => {
    const ofBoat = all.filter(({ boatId }) => boatId === boat);
    const isTo = ({ buyers }: { buyers: readonly { name: string }[] }) =>
      buyers.some((buyer) => nameKey(buyer.name) === nameKey(name));
    const last = ofBoat.findLastIndex(isTo);
    return { boat, isTheirs: last === ofBoat.length - 1, until: ofBoat[last + 1]?.date ?? null };
  });
}

const idsOf = (handovers: readonly BuyerHandover[]) => handovers.map(({ delivery }) => delivery);
const theirsNow = (owned: readonly Owned[]) => owned.flatMap(({ boat, isTheirs }) => (isTheirs ? [boat] : []));

async function readSheet(parts: Parts, id: string, person: string): Promise<BuyerSheet> {
  const { boats, deliveries, buyers, chain, towing } = parts;
  const { name, handovers } = await findBuyer(parts, id, person);
  const owned = await listOwned(parts, name, handovers);
  const heads = await boats.listHeads(owned.map(({ boat }) => boat));
  const headOf = (boat: string) => heads.find((each) => each.id === boat)!;
  const messages = await buyers.listMessages({ deliveries: idsOf(handovers), boats: theirsNow(owned) });
  return {
    name,
    handovers: await Promise.all(
      handovers.map(async ({ delivery, person: theirId, boat, date, buyers: all }) => {
        const seal = await chain.findSeal(delivery);
        const entries = await deliveries.listEntries(delivery);
        return {
          delivery,
          boat,
          boatName: headOf(boat).name,
          date,
          others: all.flatMap((buyer) => (buyer.id === theirId || buyer.name === struckName ? [] : [buyer.name])),
          seal: seal === null ? null : isFirstFormat(seal.canonical) ? ("first" as const) : ("salted" as const),
          entries: listTheirs(entries, { id: theirId, name }).length,
          photos: new Set(listPhotos(entries)).size,
        };
      }),
    ),
    boats: await Promise.all(
      owned.map(async ({ boat, isTheirs, until }) => {
        const { vehicle, launches } = await towing.find(boat);
        const rows = await buyers.listRows(boat, until);
        const { phone, email } = contactOf(headOf(boat));
        return {
          boat,
          boatName: headOf(boat).name,
          isTheirs,
          phone: isTheirs ? phone : "",
          email: isTheirs ? email : "",
          hasCar: isTheirs && vehicle !== null,
          launches: isTheirs ? launches.length : 0,
          rows: Object.fromEntries(Object.entries(rows).map(([table, list]) => [table, list.length])),
          files: (rows.services as { file: string | null }[]).filter(({ file }) => file !== null).length,
        };
      }),
    ),
    messages: messages.filter(({ text }) => text !== struckName).length,
    logLines: (await buyers.listLog(name, theirsNow(owned), contactWords)).filter(({ about }) => about !== struckName)
      .length,
  };
}

/**
 * A zip of all of it: `buyer.json` (format `ravik.buyer/1`), each handover as its bundle or, while it is open, with its entries,
 * the photos, and papers kept with services.
 */
async function writeFile(parts: Parts, id: string, person: string): Promise<Buffer> {
  const { boats, deliveries, buyers, chain, photos, files: papers, towing, settings, bundleService, clock } = parts;
  const { name, handovers } = await findBuyer(parts, id, person);
  const owned = await listOwned(parts, name, handovers);
  const at = clock.now();
  const files = new Map<string, Buffer>();
  const put = (file: string, value: unknown) => files.set(file, Buffer.from(JSON.stringify(value, null, 2)));
  const heads = await boats.listHeads(owned.map(({ boat }) => boat));
  const listed = await Promise.all(owned.map(({ boat, until }) => buyers.listRows(boat, until)));
  put("buyer.json", {
    format: "ravik.buyer/1",
    store: (await settings.read()).store,
    at,
    name,
    handovers: handovers.map(({ delivery, boat, date, buyers: all }) => ({ delivery, boat, date, buyers: all })),
    boats: await Promise.all(
      owned.map(async ({ boat, isTheirs, until }, i) => {
        const head = heads.find((each) => each.id === boat)!;
        const theirs = isTheirs ? { contact: contactOf(head), towing: await towing.find(boat) } : {};
        return { boat, name: head.name, hull: head.hull, until, ...theirs, ...listed[i] };
      }),
    ),
    messages: await buyers.listMessages({ deliveries: idsOf(handovers), boats: theirsNow(owned) }),
  });
  for (const { delivery } of handovers) {
    const entries = await deliveries.listEntries(delivery);
    const isSealed = (await chain.findSeal(delivery)) !== null;
    put(`handovers/${delivery}.json`, isSealed ? await bundleService.writeBundle(delivery) : { delivery, entries });
    for (const photo of new Set(listPhotos(entries))) {
      const bytes = await photos.findSealed(photo);
      if (bytes !== null) files.set(photoFile(photo), bytes);
    }
  }
  for (const rows of listed)
    for (const { file, fileName } of rows.services as { file: string | null; fileName: string | null }[]) {
      const kept = file === null ? null : await papers.find(file);
      if (kept !== null) files.set(`papers/${file}-${safeName(fileName ?? "paper")}`, kept.bytes);
    }
  return writeZip(files, new Date(at));
}

/** A name that came with a file, as it may stand in a zip anywhere. */
const safeName = (name: string): string => name.replace(/[^\p{L}\p{N}._-]+/gu, "-").slice(-80);

async function forget(
  parts: Parts,
  id: string,
  person: string,
  { deliveries: chosen, photos, contact, reason, by }: ForgetWish & { readonly by: string },
): Promise<ForgottenSheet> {
  const { database, boats, buyers, ownerLinks, strikeService, clock } = parts;
  return database.inTransaction(async (t) => {
    const { name, handovers } = await findBuyer(parts, id, person, t);
    const owned = await listOwned(parts, name, handovers, t);
    const unknown = chosen.find((delivery) => !idsOf(handovers).includes(delivery));
    if (unknown !== undefined) throw new Failure("not-found", { what: "handover of theirs", id: unknown });
    const now = theirsNow(owned);
    const log = await buyers.listLog(name, contact ? now : [], contactWords, t);
    for (const { delivery, person: theirId } of handovers.filter((each) => chosen.includes(each.delivery))) {
      await strikeService.strike(delivery, by, { person: theirId, photosOf: photos ? chosen : [], reason }, t);
      await buyers.clearNote(delivery, t);
    }
    await ownerLinks.endAllOf(chosen, clock.now(), t);
    const messages = await buyers.strikeMessages({ deliveries: chosen, boats: contact ? now : [] }, t);
    if (contact)
      for (const boat of now) {
        // Nobody is written to any more at a boat whose people asked to be forgotten.
        await buyers.clearBoat(boat, JSON.stringify({ name: "", phone: "", email: "", optOut: true }), t);
      }
    const lines = log.map(({ number }) => ({ part: "audit", id: String(number) }));
    await strikeService.permit(id, lines, t);
    await buyers.strikeLog(
      log.map(({ number }) => number!),
      t,
    );
    const left = await listNamed(parts, chosen, name, t);
    const heads = await boats.listHeads();
    const nameOf = (boat: string) => heads.find((each) => each.id === boat)?.name ?? boat;
    const boatOf = new Map(handovers.map(({ delivery, boat }) => [delivery, boat]));
    return {
      handovers: chosen.length,
      messages,
      logLines: log.length,
      stillNamed: left.map(({ delivery, text }) => ({ delivery, boatName: nameOf(boatOf.get(delivery)!), text })),
    };
  });
}

/** What somebody wrote in a mark, a snag or a promise stays, for it is what was handed over; where it names them, it is said. */
async function listNamed({ deliveries }: Parts, ids: readonly string[], name: string, t: Transaction) {
  const found: { delivery: string; text: string }[] = [];
  for (const delivery of ids)
    for (const entry of await deliveries.listEntries(delivery, t))
      if (namesThem(entry, name)) found.push({ delivery, text: wordsOf(entry) });
  return found.slice(0, mostNamed);
}
