import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bundleFile, findPhotoId, formatDifference, verifyBundle } from "../core/record/index.ts";
import { struckFirstWords } from "../core/walk/index.ts";
import { createClock } from "../server/clock.ts";
import { createServices } from "../server/createServices.ts";
import { openDatabase } from "../server/database/open.ts";
import { copyDatabase } from "../server/keeping/copyDatabase.ts";
import { verifyStore } from "../server/verifyStore.ts";
import { readZip } from "../server/zip.ts";

/**
 * `ravik verify --store DATA`: whether a whole store, its seal chain, handovers, photos and the heads kept day by day, is what
 * was sealed. The store may be in use: a copy of it is looked at. `ravik verify file`: whether a handover file (the bundle as JSON, or as a zip with its photos) is what was sealed, or
 * exactly what differs. Needs no store. Exit 0 intact, 1 changed, 2 not to be read.
 */
const [path, folder] = process.argv.slice(2);

const hash = (content: string | Buffer) => createHash("sha256").update(content).digest("hex");

async function verifyWhole(data: string): Promise<number> {
  const copy = mkdtempSync(join(tmpdir(), "ravik-verify-"));
  try {
    await copyDatabase(join(data, "ravik.sqlite"), join(copy, "ravik.sqlite"));
    const database = await openDatabase(copy);
    const services = createServices(database, createClock("UTC"), null);
    const verdict = await verifyStore({ ...services, hashBytes: hash }, data);
    await database.close();
    const { isIntact, faults, links, handovers, photos, struck, head } = verdict;
    const end = head === null ? "no link yet" : `head: number ${head.number}, ${head.link}`;
    if (isIntact) console.log(`${data}: intact. ${handovers} handovers, ${links} links, ${photos} photos; ${end}`);
    else console.log(`${data}: not what was sealed; ${end}`);
    if (struck.length > 0)
      console.log(
        `  names were struck from records of the first format, whose seals can no longer be recomputed: ${struck.join(", ")}`,
      );
    for (const fault of faults) console.log(`  ${fault}`);
    return isIntact ? 0 : 1;
  } catch (error) {
    console.error(`${data}: not to be read: ${(error as Error).message}`);
    return 2;
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}

async function open(bytes: Buffer): Promise<{ value: unknown; photos?: Map<string, string> }> {
  if (bytes.subarray(0, 2).toString("latin1") !== "PK") return { value: JSON.parse(bytes.toString("utf8")) };
  const files = await readZip(bytes, () => true);
  const text = files.get(bundleFile);
  if (text === undefined) throw new Error(`there is no ${bundleFile} in it`);
  const photos = new Map(
    [...files].flatMap(([name, content]) => {
      const id = findPhotoId(name);
      return id === null ? [] : [[id, hash(content)] as const];
    }),
  );
  return { value: JSON.parse(text.toString("utf8")), photos };
}

async function main(): Promise<number> {
  if (path === undefined) {
    console.error("ravik verify: expected a file, got nothing");
    return 2;
  }
  if (path === "--store") return verifyWhole(folder ?? "data");
  let opened: Awaited<ReturnType<typeof open>>;
  try {
    opened = await open(await readFile(path));
  } catch (error) {
    console.error(`${path}: not to be read: ${(error as Error).message}`);
    return 2;
  }
  const { isIntact, differences, sha256, entries, amendments, cannotRecompute } = verifyBundle(opened.value, hash, {
    ...(opened.photos === undefined ? {} : { photos: opened.photos }),
  });
  if (isIntact) {
    console.log(`${path}: intact. ${entries} entries, ${amendments} additions, SHA-256 ${sha256}`);
    if (cannotRecompute) console.log(`  ${struckFirstWords}`);
    return 0;
  }
  console.log(`${path}: not what was sealed.`);
  for (const difference of differences) console.log(`  ${formatDifference(difference)}`);
  return 1;
}

process.exitCode = await main();
