import { createHash } from "node:crypto";
import Papa from "papaparse";
import { ulid } from "ulid";
import type { BundlePreview, VerifiedSheet } from "../../api/index.ts";
import {
  type Bundle,
  bundleFile,
  bundleSchema,
  findPhotoId,
  formatDifference,
  type Handover,
  photoFile,
  verifyBundle,
  writeCanonical,
} from "../../core/record/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import { readPhoto } from "../photos.ts";
import type { Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Photos } from "../repositories/photos.ts";
import { readZip, writeZip } from "../zip.ts";
import { type HandoverService, listPhotos, summarize } from "./handoverService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly photos: Photos;
  readonly chain: Chain;
  readonly handoverService: HandoverService;
}

const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");

/** Sealed handovers on their way out of the store and into it, and the question whether one is still what was sealed. */
export function createBundleService({ database, boats, deliveries, photos, chain, handoverService }: Parts) {
  const writeBundle = async (id: string): Promise<Bundle> => {
    await handoverService.get(id);
    const seal = await chain.findSeal(id);
    if (seal === null) throw new Failure("not-sealed", { delivery: id });
    const amendments = await chain.listAmendments(id);
    return {
      format: "ravik.bundle/1",
      sha256: seal.sha256,
      handover: JSON.parse(seal.canonical),
      amendments: amendments.map(({ sha256, canonical }) => ({ sha256, amendment: JSON.parse(canonical) })),
      chain: { number: seal.number, previous: seal.previous, link: seal.link },
    };
  };
  const verify = async (value: unknown, photoHashes?: ReadonlyMap<string, string>): Promise<VerifiedSheet> => {
    const said = value as { sha256?: unknown; handover?: { delivery?: unknown } } | null;
    // By its seal; a file whose seal was changed with it still names its delivery.
    const bySha = typeof said?.sha256 === "string" ? await chain.findBySha(said.sha256) : null;
    const delivery = said?.handover?.delivery;
    const row = bySha ?? (typeof delivery === "string" ? await chain.findSeal(delivery) : null);
    const verified = await verifyBundle(value, hashText, {
      ...(row === null ? {} : { original: JSON.parse(row.canonical) as Handover }),
      ...(photoHashes === undefined ? {} : { photos: photoHashes }),
    });
    return {
      ...verified,
      differences: verified.differences.map((each) => ({ ...each, says: formatDifference(each) })),
      known: row === null ? null : { number: row.number, delivery: row.deliveryId, sealedAt: row.at },
    };
  };
  const open = async (bytes: Buffer) => {
    const files = await readZip(bytes, (name) => name === bundleFile || findPhotoId(name) !== null);
    const text = files.get(bundleFile);
    if (text === undefined) throw new Failure("not-a-bundle", { reason: `there is no ${bundleFile} in it` });
    let value: unknown;
    try {
      value = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(text));
    } catch {
      throw new Failure("not-a-bundle", { reason: `${bundleFile} is not JSON` });
    }
    const parsed = bundleSchema.safeParse(value);
    if (!parsed.success) {
      const issue = parsed.error.issues[0]!;
      throw new Failure("not-a-bundle", { reason: `${issue.path.join(".")}: ${issue.message}` });
    }
    const pictures = new Map(
      [...files].flatMap(([name, content]) => {
        const id = findPhotoId(name);
        return id === null ? [] : [[id, content] as const];
      }),
    );
    const hashes = new Map([...pictures].map(([id, content]) => [id, hashBytes(content)]));
    // As it came, without what parsing fills in: its seal is over just that.
    const sealed = (value as Bundle).handover;
    return { bundle: parsed.data, sealed, pictures, verified: await verify(value, hashes) };
  };

  return {
    writeBundle,
    verify,

    /** The bundle and its photos as a zip. The same handover gives the same bytes. */
    async writeBundleZip(id: string): Promise<Buffer> {
      const bundle = await writeBundle(id);
      const files = new Map<string, Buffer>([[bundleFile, Buffer.from(JSON.stringify(bundle))]]);
      const later = bundle.amendments.flatMap(({ amendment }) => listPhotos(amendment.entries));
      for (const photo of new Set([...listPhotos(bundle.handover.entries), ...later])) {
        const bytes = await photos.find(photo, "large");
        if (bytes !== null) files.set(photoFile(photo), bytes);
      }
      return writeZip(files, new Date(bundle.handover.sealedAt));
    },

    /** Every mark of a handover as a row, the first first; RFC 4180 with a head. */
    async writeMarksCsv(id: string): Promise<string> {
      const { topics, entries, buyers, staff } = await handoverService.describe(id);
      const titleOf = new Map(topics.map((topic) => [topic.id, topic]));
      const nameOf = new Map([...buyers, ...staff].map(({ id: person, name }) => [person, name]));
      const rows = foldWalk(entries)
        .counted.filter((entry) => entry.kind === "mark")
        .map((mark) => ({
          at: mark.at,
          topic: mark.topic,
          title: titleOf.get(mark.topic)?.title ?? "",
          system: titleOf.get(mark.topic)?.system ?? "",
          must: titleOf.get(mark.topic)?.must === true ? "yes" : "no",
          mark: mark.mark,
          for: mark.person === null ? "all present" : (nameOf.get(mark.person) ?? mark.person),
          by: nameOf.get(mark.by) ?? mark.by,
          seconds: mark.spentS,
          note: mark.note ?? "",
        }));
      const columns = ["at", "topic", "title", "system", "must", "mark", "for", "by", "seconds", "note"];
      // A cell that begins like a formula is not run by the program that opens it.
      return Papa.unparse(rows, { columns, escapeFormulae: true, newline: "\r\n" });
    },

    async preview(bytes: Buffer): Promise<BundlePreview> {
      const { bundle, pictures, verified } = await open(bytes);
      const { handover } = bundle;
      return {
        store: handover.store,
        boatName: handover.boatName ?? handover.rig.model,
        hull: handover.hull,
        date: handover.date,
        buyers: handover.buyers.map(({ name }) => name),
        topics: handover.topics.length,
        entries: handover.entries.length,
        photos: pictures.size,
        amendments: bundle.amendments.length,
        verified,
        isBoatKnown: (await boats.findByHull(handover.hull)) !== null,
        isKnown: (await chain.findBySha(bundle.sha256)) !== null,
      };
    },

    /** Takes in a handover another store sealed: its boat unless it is here already, its entries, photos and seal. */
    async importBundle(bytes: Buffer): Promise<{ delivery: string; boat: string }> {
      const { bundle, sealed, pictures, verified } = await open(bytes);
      if (!verified.isIntact)
        throw new Failure("not-a-bundle", { reason: verified.differences.map(({ says }) => says).join("; ") });
      if ((await chain.findBySha(bundle.sha256)) !== null) throw new Failure("already-here", { sha256: bundle.sha256 });
      const { handover } = bundle;
      const added = bundle.amendments.flatMap(({ amendment }) => amendment.entries);
      // Entries are known by ids that no two stores share; their delivery may be called what another here is called.
      const readied = await Promise.all(
        [...pictures].map(async ([id, content]) => ({ id, ...(await readPhoto(content)) })),
      );
      return database.inTransaction(async (transaction) => {
        const known = await boats.findByHull(handover.hull, transaction);
        const boat = known?.id ?? ulid().toLowerCase();
        const name = handover.boatName ?? handover.rig.model;
        if (known === null) await boats.add({ id: boat, name, hull: handover.hull, rig: handover.rig }, transaction);
        const isTaken = (await deliveries.find(handover.delivery, transaction)) !== null;
        if (isTaken) throw new Failure("already-here", { delivery: handover.delivery });
        const delivery = handover.delivery;
        const entries = [...handover.entries, ...added];
        const firstAt = foldWalk(handover.entries).startedAt ?? handover.sealedAt;
        await deliveries.add(
          {
            id: delivery,
            boatId: boat,
            date: handover.date,
            time: firstAt.slice(11, 16),
            note: `Taken in from ${handover.store}`.slice(0, 400),
            buyers: handover.buyers,
            planOptions: { ...defaultPlanOptions, style: handover.plan.style },
            summary: summarize(handover, entries, true),
          },
          transaction,
        );
        await deliveries.addEntries(delivery, entries, transaction);
        for (const photo of readied) {
          const facts = await photos.listFacts([photo.id], transaction);
          // Kept as it came, so that its hash stays the sealed one; made anew only for the small version.
          const large = pictures.get(photo.id)!;
          if (facts.length === 0)
            await photos.add(
              { ...photo, large, sha256: hashBytes(large), at: handover.sealedAt, by: handover.sealedBy },
              transaction,
            );
        }
        await chain.add(
          {
            deliveryId: delivery,
            kind: "import",
            canonical: writeCanonical(sealed),
            sha256: bundle.sha256,
            at: handover.sealedAt,
          },
          transaction,
        );
        for (const { amendment, sha256 } of bundle.amendments)
          await chain.add(
            { deliveryId: delivery, kind: "amendment", canonical: writeCanonical(amendment), sha256, at: amendment.at },
            transaction,
          );
        for (const entry of foldWalk(handover.entries).hours.values())
          await boats.addReading(
            {
              id: entry.id,
              boatId: boat,
              engine: entry.engine,
              date: handover.date,
              hours: entry.hours,
              reason: null,
              by: entry.by,
              source: "walk",
              answer: null,
              photo: null,
            },
            transaction,
          );
        if (known === null || known.inService === null)
          await boats.setCare(boat, { inService: handover.date, dueDate: null }, transaction);
        return { delivery, boat };
      });
    },
  };
}

export type BundleService = ReturnType<typeof createBundleService>;
