import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { dayOf, toInstant } from "../../core/dates/index.ts";
import { createPhotoId } from "../../core/walk/index.ts";
import { makeDemoStore } from "../../demo/makeStore.ts";
import { openDatabase } from "../../server/database/open.ts";
import { hashBytes } from "../../server/services/bundleFile.ts";
import { type Figure, figureMs } from "./figures.ts";
import { quantile } from "./quantile.ts";
import { startStore } from "./startStore.ts";

const delivery = "d-w118";
const [shortLog, longLog] = [20, 2000];
const marksTimed = 200;
const mostLonger = 1.5;
const [papers, uploads, uploadBytes] = [20, 10, 10_000_000];

/** A mark by itself on a short walk and on a very long one, and marks while papers are printed and photos come in. */
export async function benchMarks(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-bench-"));
  const database = await openDatabase(folder);
  await makeDemoStore(database, dayOf(Date.now(), "UTC"), "UTC");
  await database.close();
  const { call, address, headers, stop } = await startStore(folder, "nessa");
  const { snapshot } = (await (await fetch(`${address}/api/deliveries/${delivery}`, { headers })).json()) as {
    snapshot: string;
  };
  const make = (what: object) => ({
    id: ulid(),
    delivery,
    at: toInstant(Date.now()),
    by: "nessa",
    device: "bench",
    snapshot,
    ...what,
  });
  const makeMark = () => make({ kind: "mark", topic: "lanyard", mark: "told", person: null, spentS: 1 });
  const post = (entries: readonly object[]) => call("POST", `/api/deliveries/${delivery}/entries`, { entries });
  let length = 1;
  await post([make({ kind: "start" })]);
  const fillTo = async (most: number) => {
    while (length < most) {
      const some = Array.from({ length: Math.min(100, most - length) }, makeMark);
      await post(some);
      length += some.length;
    }
  };
  const time = async () => {
    const tookMs: number[] = [];
    for (let i = 0; i < marksTimed; i++) tookMs.push((await post([makeMark()])).ms);
    length += marksTimed;
    return tookMs;
  };
  // Warm, before either is timed.
  await fillTo(shortLog);
  await time();
  const shortMs = await time();
  await fillTo(longLog);
  const longMs = await time();
  const ratio = quantile(longMs, 0.5) / quantile(shortMs, 0.5);

  const noise = await sharp({
    create: {
      width: 3000,
      height: 2400,
      channels: 3,
      background: "#888",
      noise: { type: "gaussian", mean: 128, sigma: 90 },
    },
  })
    .jpeg({ quality: 97 })
    .toBuffer();
  const photo = noise.subarray(0, Math.min(noise.length, uploadBytes));
  let isBusy = true;
  const busy = Promise.all([
    runInTurn(papers, 2, async () => {
      await (await fetch(`${address}/api/deliveries/${delivery}/pack.pdf`, { headers })).arrayBuffer();
    }),
    runInTurn(uploads, 2, async (i) => {
      // Each another photo: one more byte behind the picture.
      const bytes = Buffer.concat([photo, Buffer.from([i])]);
      const id = createPhotoId(hashBytes(bytes), "staff");
      const sent = { method: "PUT", body: bytes, headers: { ...headers, "content-type": "image/jpeg" } };
      await (await fetch(`${address}/api/photos/${id}`, sent)).arrayBuffer();
    }),
  ]).finally(() => {
    isBusy = false;
  });
  const busyMs: number[] = [];
  while (isBusy) {
    busyMs.push((await post([makeMark()])).ms);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await busy;
  await stop();
  rmSync(folder, { recursive: true, force: true });
  return [
    figureMs(`a mark by itself, on a log of some ${shortLog * 10} entries`, shortMs, 30, "compute"),
    {
      what: `the same on a log of ${longLog}, as so many times`,
      value: `p50 ${quantile(longMs, 0.5).toFixed(1)} ms, ${ratio.toFixed(2)} ×`,
      goal: `${mostLonger} ×`,
      isMet: ratio <= mostLonger,
    },
    figureMs(
      `a mark while ${papers} owner packs are printed and ${uploads} photos of ${(photo.length / 1e6).toFixed(0)} MB come in`,
      busyMs,
      150,
      "compute",
    ),
  ];
}

/** Does something so many times, so many at once. */
async function runInTurn(count: number, atOnce: number, work: (i: number) => Promise<void>) {
  let next = 0;
  const go = async () => {
    while (next < count) await work(next++);
  };
  await Promise.all(Array.from({ length: atOnce }, go));
}
