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
import { readHeadsFile } from "../server/sealHeads.ts";
import { readPublicKey } from "../server/storeKey.ts";
import { verifyStore } from "../server/verifyStore.ts";
import { readZip } from "../server/zip.ts";

/**
 * `ravik verify [--key HEX] FILE`: whether a handover file (the bundle as JSON, or as a zip with its photos) is intact and signed, intact and
 * unsigned, or exactly what differs. Needs no store. `ravik verify [--key HEX] --store DATA`: the same of a whole store: its seal chain,
 * handovers, what stands beside them, photos and heads. The store may be in use: a copy of it is looked at. `--key`: the public
 * key that must have signed, from paper; without it a store's own `store-key.pub` says it. No private key is opened. Exit 0: intact (of a
 * file: and signed), 1: not what was sealed, 2: not to be read, 3: a file that is intact and unsigned.
 */
const given = process.argv.slice(2);
const keyAt = given.indexOf("--key");
const expectedKey = keyAt < 0 ? null : (given.splice(keyAt, 2)[1] ?? "");
const [path, folder] = given;

const hash = (content: string | Buffer) => createHash("sha256").update(content).digest("hex");

async function verifyWhole(data: string): Promise<number> {
  const copy = mkdtempSync(join(tmpdir(), "ravik-verify-"));
  try {
    // Heads first: what is sealed meanwhile is in the copy and in no head, and never the other way round.
    const heads = readHeadsFile(data);
    await copyDatabase(join(data, "ravik.sqlite"), join(copy, "ravik.sqlite"));
    const database = await openDatabase(copy);
    const services = createServices(database, createClock("UTC"), null);
    const key = expectedKey ?? readPublicKey(data);
    const verdict = await verifyStore({ ...services, hashBytes: hash }, { heads, key });
    await database.close();
    const { isIntact, faults, links, handovers, photos, struck, head } = verdict;
    const end = head === null ? "no link yet" : `head: number ${head.number}, ${head.link}`;
    if (isIntact) console.log(`${data}: intact. ${handovers} handovers, ${links} links, ${photos} photos; ${end}`);
    else console.log(`${data}: not what was sealed; ${end}`);
    if (key !== null) console.log(`  signed with ${key}`);
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
  if (expectedKey !== null && !/^[0-9a-f]{64}$/.test(expectedKey)) {
    console.error("ravik verify: expected 64 small hex digits after --key");
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
  const known = {
    ...(opened.photos === undefined ? {} : { photos: opened.photos }),
    ...(expectedKey === null ? {} : { expectedKey, keys: [expectedKey] }),
  };
  const verified = verifyBundle(opened.value, hash, known);
  const { verdict, differences, sha256, entries, amendments, cannotRecompute, signedBy } = verified;
  const holds = `${entries} entries, ${amendments} additions, SHA-256 ${sha256}`;
  switch (verdict) {
    case "signed":
      console.log(`${path}: intact, and signed by ${signedBy!.store} with ${signedBy!.key}. ${holds}`);
      return 0;
    case "unsigned":
      console.log(`${path}: intact, but signed by nobody. ${holds}`);
      if (cannotRecompute) console.log(`  ${struckFirstWords}`);
      return 3;
    case "differs":
      console.log(`${path}: not what was sealed.`);
      for (const difference of differences) console.log(`  ${formatDifference(difference)}`);
      return 1;
    default:
      throw new Error(`verify: expected a known verdict, got ${JSON.stringify(verdict satisfies never)}`);
  }
}

process.exitCode = await main();
