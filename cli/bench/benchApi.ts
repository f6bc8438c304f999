import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { dayOf, toInstant } from "../../core/dates/index.ts";
import { makeLargeStore } from "../../demo/makeLargeStore.ts";
import { makeDemoStore } from "../../demo/makeStore.ts";
import { openDatabase } from "../../server/database/open.ts";
import { type Figure, figureMs } from "./figures.ts";
import { startStore } from "./startStore.ts";

/** Today and the posting of an entry over loopback, with a thousand deliveries and all their entries in the store. */
export async function benchApi(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-bench-"));
  const today = dayOf(Date.now(), "UTC");
  const database = await openDatabase(folder);
  await makeDemoStore(database, today, "UTC");
  await makeLargeStore(database, today, 1000);
  await database.close();
  const { call, stop } = await startStore(folder, "nessa");
  const postOne = () => {
    const base = { id: ulid(), delivery: "d-w118", at: toInstant(Date.now()), by: "nessa", device: "bench" };
    return call("POST", "/api/deliveries/d-w118/entries", {
      entries: [{ ...base, kind: "mark", topic: "lanyard", mark: "did", person: null, spentS: 5 }],
    });
  };
  for (let i = 0; i < 20; i++) {
    await call("GET", "/api/today");
    await postOne();
  }
  const todayMs: number[] = [];
  const postMs: number[] = [];
  for (let i = 0; i < 200; i++) {
    todayMs.push((await call("GET", "/api/today")).ms);
    postMs.push((await postOne()).ms);
  }
  await stop();
  rmSync(folder, { recursive: true, force: true });
  return [
    figureMs("GET /api/today, 1,000 deliveries", todayMs, 30, "compute"),
    figureMs("POST one entry, 1,000 deliveries", postMs, 30, "compute"),
  ];
}
