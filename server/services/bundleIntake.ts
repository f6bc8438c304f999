import { ulid } from "ulid";
import { type Instant, minutesOfDay, toClock } from "../../core/dates/index.ts";
import { writeJson } from "../../core/hash/index.ts";
import { type Bundle, type SealedBundle, writeCanonical } from "../../core/record/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import { cutText } from "../../core/text/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { readPhoto } from "../photos.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { ImportProof, Imports } from "../repositories/imports.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import { hashBytes, type OpenBundle } from "./bundleFile.ts";
import { summarize } from "./summarize.ts";

export interface IntakeParts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly photos: Photos;
  readonly chain: Chain;
  readonly imports: Imports;
  readonly snapshots: Snapshots;
  readonly clock: Clock;
}

export type ReadiedPhoto = Awaited<ReturnType<typeof readPhoto>> & { readonly id: string };

/** Puts what a bundle holds into the store: boat, entries, photos, seal, hours. */
export function createIntake(parts: IntakeParts) {
  const { boats, deliveries, clock } = parts;

  return async (opened: OpenBundle, readied: readonly ReadiedPhoto[], by: string, t: Transaction) => {
    const { head, entries, later } = opened;
    const known = await boats.findByHull(head.hull, t);
    const boat = known?.id ?? ulid().toLowerCase();
    if (known === null) await boats.add({ id: boat, name: head.boatName, hull: head.hull, rig: head.rig }, t);
    // Entries are known by ids that no two stores share; their delivery may be called what another here is called.
    if ((await deliveries.find(head.delivery, t)) !== null)
      throw new Failure("already-here", { delivery: head.delivery });
    const firstAt = foldWalk(entries).startedAt ?? head.sealedAt;
    await deliveries.add(
      {
        id: head.delivery,
        boatId: boat,
        date: head.date,
        time: clockAt(firstAt, clock.timeZone),
        note: cutText(`Imported from ${head.store}`, 400),
        buyers: [...head.buyers],
        planOptions: { ...defaultPlanOptions, style: head.style },
        summary: summarize(head, entries, later, true),
      },
      t,
    );
    const receivedAt = clock.now();
    await deliveries.addEntries(head.delivery, [...entries, ...later], { receivedAt, via: "import" }, t);
    await takePhotos(parts, opened, readied, t);
    await chainImport(parts, opened, by, t);
    if (known === null) await startCare(parts, boat, opened, t);
    return { delivery: head.delivery, boat };
  };
}

/** 09:30 at this store, whatever zone the other one is in. */
const clockAt = (at: Instant, timeZone: string): string => toClock(minutesOfDay(at, timeZone));

/** The hash of the bytes its device sent, as far as the bundle says it. */
function sentOf(bundle: Bundle | SealedBundle, photo: string): string | null {
  if (bundle.format === "ravik.bundle/1") return null;
  for (const { photos } of [bundle.content, ...bundle.amendments.map(({ content }) => content)]) {
    const part = photos[photo];
    if (part !== undefined && "value" in part) return part.value.sent;
  }
  return null;
}

/** Seal and additions into this store's chain, as they came. */
async function chainImport(
  { deliveries, chain, imports, snapshots, clock }: IntakeParts,
  { value, head, verified }: OpenBundle,
  by: string,
  t: Transaction,
) {
  const link = { deliveryId: head.delivery, at: head.sealedAt, sha256: value.sha256 };
  const note = async ({ number }: { readonly number: number }, proof: ImportProof) => {
    const { verdict, signedBy } = verified;
    const taken = { deliveryId: head.delivery, by, at: clock.now(), verdict, key: signedBy?.key ?? null };
    await imports.add({ number, ...taken, proof }, t);
  };
  if (value.format === "ravik.bundle/1") {
    const row = await chain.add({ ...link, kind: "import", canonical: writeCanonical(value.handover) }, t);
    await note(row, { format: "ravik.bundle/2", chain: null, amendments: [], signature: null });
    for (const { amendment, sha256 } of value.amendments) {
      const canonical = writeCanonical(amendment);
      await chain.add({ ...link, kind: "amendment", canonical, sha256, at: amendment.at }, t);
    }
    return;
  }
  for (const [sha256, snapshot] of Object.entries(value.snapshots)) {
    await snapshots.add(sha256, head.delivery, writeJson(snapshot), head.sealedAt, t);
    await snapshots.noteHandout(sha256, head.delivery, clock.now(), t);
    await snapshots.markUsed([sha256], t);
  }
  await deliveries.setSnapshot(head.delivery, value.handover.snapshot, t);
  const sealed = { ...link, kind: "import" as const, canonical: writeJson(value.handover), content: value.content };
  await note(await chain.add(sealed, t), {
    format: value.format,
    chain: value.chain ?? null,
    amendments: value.amendments.map((each) => ("chain" in each ? each.chain : null)),
    signature: value.signature ?? null,
  });
  for (const { amendment, sha256, content } of value.amendments)
    await chain.add(
      { ...link, kind: "amendment", canonical: writeJson(amendment), sha256, content, at: amendment.at },
      t,
    );
}

async function takePhotos(
  { photos }: IntakeParts,
  { value, head, pictures }: OpenBundle,
  readied: readonly ReadiedPhoto[],
  t: Transaction,
) {
  for (const photo of readied) {
    if ((await photos.listFacts([photo.id], t)).length > 0) continue;
    // Kept as it came, so that its hash stays the sealed one; screens are given the one made anew.
    const original = pictures.get(photo.id)!;
    const kept = { original, sha256: hashBytes(original), sent: sentOf(value, photo.id) };
    await photos.add({ ...photo, ...kept, at: head.sealedAt, by: head.sealedBy }, t);
  }
}

/** Of a boat that was not here: its hours, and since when it is in service. */
async function startCare({ boats }: IntakeParts, boat: string, { head, entries }: OpenBundle, t: Transaction) {
  for (const entry of foldWalk(entries).hours.values()) {
    const reading = { engine: entry.engine, hours: entry.hours, by: entry.by, date: head.date, source: "walk" };
    await boats.addReading(
      { ...reading, id: entry.id, boatId: boat, reason: null, answer: entry.answer ?? null, photo: null },
      t,
    );
  }
  await boats.setInService(boat, head.date, t);
}
