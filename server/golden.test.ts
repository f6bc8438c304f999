import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { topics } from "../content/index.ts";
import { bundleFile, findPhotoId, verifyBundle } from "../core/record/index.ts";
import { rigSchema } from "../core/rig/index.ts";
import { followMerges, topicFileSchema } from "../core/topic/index.ts";
import { foldWalk } from "../core/walk/index.ts";
import { createClock } from "./clock.ts";
import { createServices, type Services } from "./createServices.ts";
import { type Database, openDatabase } from "./database/open.ts";
import { hashText } from "./repositories/chain.ts";
import { readZip } from "./zip.ts";

/**
 * Files that earlier builds wrote and that people still have: they open, and say what they said. Each was made once, by the
 * build of its day, and is never made anew.
 */
const golden = (name: string) => readFileSync(new URL(`./golden/${name}`, import.meta.url));
const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");

const openBundle = async (name: string) => {
  const files = await readZip(golden(name), () => true);
  const value = JSON.parse(files.get(bundleFile)!.toString("utf8"));
  const photos = new Map(
    [...files].flatMap(([file, bytes]) => {
      const id = findPhotoId(file);
      return id === null ? [] : [[id, hashBytes(bytes)] as const];
    }),
  );
  return { value, photos };
};

describe("files of earlier builds", () => {
  it("ravik.handover/1 with its additions and photos is intact, and one letter changed in it is found", async () => {
    const { value, photos } = await openBundle("handover-1.zip");
    expect(photos.size).toBe(2);
    expect(await verifyBundle(value, hashText, { photos })).toMatchObject({
      verdict: "unsigned",
      differences: [],
      sha256: "2e066f2edb7941f20399779ac38cd50645d48ce4192e157fd74d97211a82fafd",
    });
    const snag = value.handover.entries.find(({ kind }: { kind: string }) => kind === "snag");
    snag.note = `${snag.note}.`;
    expect((await verifyBundle(value, hashText, { photos })).differences).toMatchObject([
      { code: "entry-changed", entry: snag.id },
    ]);
  });

  it("ravik.handover/2 is intact and signed; without its signature it is intact, and signed by nobody", async () => {
    const { value, photos } = await openBundle("handover-2.zip");
    expect(value.handover.format).toBe("ravik.handover/2");
    const signedBy = { store: value.handover.store, key: value.handover.storeKey };
    const whole = {
      verdict: "signed",
      differences: [],
      signedBy,
      sha256: "e1f90f976b7e14e2b237f5f57e9a0c35661d7fd6dbe46da4c555dc381395dd31",
    };
    expect(verifyBundle(value, hashText, { photos })).toMatchObject(whole);
    const { signature: _, ...unsigned } = value;
    expect(verifyBundle(unsigned, hashText, { photos })).toMatchObject({ verdict: "unsigned", signedBy: null });
    const cut = { ...value, amendments: [] };
    expect(verifyBundle(cut, hashText, { photos }).verdict).toBe(value.amendments.length === 0 ? "signed" : "differs");
    const mark = Object.values(value.content.entries as Record<string, { value: { kind: string; at: string } }>).find(
      (part) => part.value.kind === "mark",
    )!;
    mark.value.at = mark.value.at.replace("2026", "2025");
    expect(verifyBundle(value, hashText, { photos })).toMatchObject({
      verdict: "differs",
      differences: [{ code: "entry-changed" }],
    });
  });

  it("a rig (ravik.rig/1) and topics (ravik.topics/1) are read as they were written", () => {
    const rig = JSON.parse(golden("rig-1.json").toString());
    expect(rigSchema.parse(rig)).toEqual(rig);
    const file = JSON.parse(golden("topics-1.json").toString());
    expect(topicFileSchema.parse(file).topics.map(({ id }) => id)).toEqual(
      file.topics.map(({ id }: { id: string }) => id),
    );
  });
});

describe("a store of version 6", () => {
  const folder = mkdtempSync(join(tmpdir(), "ravik-golden-"));
  let database: Database;
  let services: Services;
  beforeAll(async () => {
    writeFileSync(join(folder, "ravik.sqlite"), gunzipSync(golden("store-6.sqlite.gz")));
    database = await openDatabase(folder);
    services = createServices(database, createClock("UTC"), null);
  });
  afterAll(async () => {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it("keeps its sealed handover, with every kind of entry, intact", async () => {
    const delivery = await services.handoverService.describe("d-g001");
    expect(delivery.seal?.sha256).toBe("2e066f2edb7941f20399779ac38cd50645d48ce4192e157fd74d97211a82fafd");
    expect(new Set(delivery.entries.map(({ kind }) => kind)).size).toBe(24);
    const bundle = await services.bundleService.writeBundle("d-g001");
    expect(bundle).toEqual((await openBundle("handover-1.zip")).value);
    expect(await services.bundleService.verify(bundle)).toMatchObject({ isIntact: true, known: { number: 1 } });
  });

  it("keeps the walk under way and the order made by hand", async () => {
    const walk = await services.handoverService.describe("d-g002");
    expect(walk.seal).toBeNull();
    expect(foldWalk(walk.entries).topics.size).toBe(19);
    expect(walk.planOptions).toMatchObject({ style: "power-first", people: 2, budgetMin: 45 });
    const planned = await services.handoverService.describe("d-g003");
    expect(planned.plan.isByHand).toBe(true);
    // Some of its topics have been merged since.
    const kept = new Set(planned.planOptions.manualOrder!.map(followMerges(topics)));
    expect([...kept]).toEqual(planned.plan.visits.flatMap((visit) => visit.topics));
  });

  it("takes the bundle of its own handover for what it has already", async () => {
    expect(await services.bundleService.preview(golden("handover-1.zip"))).toMatchObject({ isKnown: true });
  });
});
