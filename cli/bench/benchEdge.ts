import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { setPriority, tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { dayOf, toInstant } from "../../core/dates/index.ts";
import { makeDemoStore } from "../../demo/makeStore.ts";
import { openDatabase } from "../../server/database/open.ts";
import { type Figure, figureMs } from "./figures.ts";
import { startStore } from "./startStore.ts";

const attacks = {
  bodies: "ten bodies of 18 MB at once",
  strangers: "the same from nobody",
  packs: "twenty packs by one link",
  signIns: "200 wrong sign-ins at once",
  bombs: "twenty pictures that unpack to 121 megapixels",
  streams: "300 live streams",
} as const;
const marks = 80;
const everyMs = 60;

/** How long a mark takes to be stored while somebody does their worst. */
export async function benchEdge(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-edge-"));
  const database = await openDatabase(folder);
  await makeDemoStore(database, dayOf(Date.now(), "UTC"), "UTC");
  await database.close();
  const { address, headers, call, stop } = await startStore(folder, "nessa");
  // Another's session, so that what one person may have under way is theirs.
  const other = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers: { origin: address, "content-type": "application/json" },
    body: JSON.stringify({ login: "odile", password: "slack-water" }),
  });
  const cookie = other.headers.get("set-cookie")!.split(";")[0]!;
  const link = await fetch(`${address}/api/deliveries/d-w112/link`, {
    method: "POST",
    headers: { ...headers, cookie },
    body: JSON.stringify({ isRemote: false }),
  });
  const { token = "" } = (await link.json()) as { token?: string };
  const postOne = () => {
    const base = { id: ulid(), delivery: "d-w118", at: toInstant(Date.now()), by: "nessa", device: "bench" };
    return call("POST", "/api/deliveries/d-w118/entries", {
      entries: [{ ...base, kind: "mark", topic: "lanyard", mark: "did", person: null, spentS: 5 }],
    });
  };
  for (let i = 0; i < 20; i++) await postOne();
  const figures: Figure[] = [];
  for (const [name, says] of Object.entries(attacks)) {
    const args = ["--import", "tsx", "cli/bench/edgeAttacks.ts", name, address, cookie, token];
    const attacker = spawn(process.execPath, args, { stdio: ["ignore", "ignore", "inherit", "ipc"] });
    // Elsewhere it would have cores of its own: it takes what the server leaves of these.
    setPriority(attacker.pid!, 19);
    await new Promise((resolve) => attacker.once("message", resolve));
    await new Promise((resolve) => setTimeout(resolve, 500));
    const valuesMs: number[] = [];
    for (let i = 0; i < marks; i++) {
      valuesMs.push((await postOne()).ms);
      await new Promise((resolve) => setTimeout(resolve, everyMs));
    }
    attacker.kill("SIGKILL");
    await new Promise((resolve) => setTimeout(resolve, 3000));
    figures.push(figureMs(`a mark is stored while: ${says}`, valuesMs, 100, "compute"));
  }
  await stop();
  rmSync(folder, { recursive: true, force: true });
  return figures;
}
