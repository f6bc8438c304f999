import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { toInstant } from "../../core/dates/index.ts";
import { type Entry, foldWalk, marks } from "../../core/walk/index.ts";
import { makeDemoStore } from "../../demo/makeStore.ts";
import { tellMakeReady, tellWalk } from "../../demo/walkEntries.ts";
import { createClock } from "../../server/clock.ts";
import { createServices } from "../../server/createServices.ts";
import { openDatabase } from "../../server/database/open.ts";
import { launchBrowser } from "../browser.ts";
import { startDemoProcess } from "../demoProcess.ts";
import { markOnce } from "./benchWeb.ts";
import { type Figure, figureMs } from "./figures.ts";

const delivery = "d-w118";
const base = (by = "nessa") => ({ id: ulid(), delivery, at: toInstant(Date.now()), by, device: "bench" });

/** The fold, sealing, the record as a PDF, marks on a long walk, and coming back into signal with much to send. */
export async function benchDock(): Promise<Figure[]> {
  return [benchFold(), await benchSeal(), ...(await benchBrowser())];
}

function benchFold(): Figure {
  const entries = Array.from(
    { length: 10_000 },
    (_, i): Entry => ({
      ...base(),
      kind: "mark",
      topic: `topic-${i % 170}`,
      mark: marks[i % marks.length]!,
      person: i % 7 === 0 ? "b1" : null,
      spentS: i % 90,
    }),
  );
  const shuffled = entries.map((entry, i) => ({ entry, at: (i * 7919) % 10_007 })).sort((a, b) => a.at - b.at);
  // As the server and the device read them: parsed from text.
  const input: Entry[] = JSON.parse(JSON.stringify(shuffled.map(({ entry }) => entry)));
  const runsMs: number[] = [];
  for (let i = 0; i < 60; i++) {
    const startMs = performance.now();
    foldWalk(input);
    if (i >= 10) runsMs.push(performance.now() - startMs);
  }
  return figureMs("fold of 10,000 entries", runsMs, 20, "compute");
}

/** From the entry that closes to the sealed record on disk, in the server's own service. */
async function benchSeal(): Promise<Figure> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-seal-"));
  const database = await openDatabase(folder);
  const clock = createClock("UTC");
  await makeDemoStore(database, clock.today(), "UTC");
  const { handoverService, people } = createServices(database, clock, null);
  const [nessa, tobin] = [(await people.findByLogin("nessa"))!, (await people.findByLogin("tobin"))!];
  const runsMs: number[] = [];
  for (let i = 0; i < 64; i++) {
    const id = await handoverService.add({
      boat: "w118",
      date: clock.today(),
      time: "10:00",
      buyers: ["Dov Anselm"],
      phone: "",
      email: "",
      note: "",
    });
    const described = await handoverService.describe(id);
    const hours = { port: 1, starboard: 1 };
    await handoverService.addEntries(
      id,
      tobin,
      tellMakeReady(described, "tobin", Date.now() - 9e6 + i, described.makeReady),
    );
    const tale = tellWalk(await handoverService.describe(id), {
      by: "nessa",
      startMs: Date.now() - 7_200_000 + i,
      seed: i + 1,
      hours,
      isSigned: true,
    });
    await handoverService.addEntries(id, nessa, tale.slice(0, -1));
    const startMs = performance.now();
    await handoverService.addEntries(id, nessa, tale.slice(-1));
    if (i >= 4) runsMs.push(performance.now() - startMs);
    if ((await handoverService.describe(id)).seal === null)
      throw new Error("bench: expected it to be sealed, it is not");
  }
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  return figureMs("sealing a handover", runsMs, 50, "compute");
}

async function benchBrowser(): Promise<Figure[]> {
  const demo = await startDemoProcess();
  const browser = await launchBrowser();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const headers = { origin: demo.address };
  const post = (path: string, data: object) => page.request.post(`${demo.address}${path}`, { data, headers });
  await page.goto(`${demo.address}/sign-in`);
  await page.getByRole("button", { name: /Nessa Quill/ }).click();
  await page.getByText("saved on this tablet").first().waitFor({ timeout: 30_000 });
  const described = await (await page.request.get(`${demo.address}/api/deliveries/${delivery}`)).json();
  await page.request.put(`${demo.address}/api/deliveries/${delivery}/plan`, {
    data: { ...described.planOptions, budgetMin: null },
    headers,
  });
  // Gear counted over and over: entries that fill the walk and leave its topics open.
  const gear: { id: string }[] = described.rig.gear;
  for (let i = 0; i < 10; i++)
    await post(`/api/deliveries/${delivery}/entries`, {
      entries: Array.from({ length: 200 }, (_, k) => ({
        ...base(),
        kind: "gear",
        item: gear[k % gear.length]!.id,
        count: 1,
      })),
    });
  await page.goto(`${demo.address}/deliveries/${delivery}/walk`);
  await page.getByRole("button", { name: "Start the walk" }).click();
  await page.locator("#topic").waitFor();
  await page.waitForLoadState("load");
  const marksMs: number[] = [];
  for (let i = 0; i < 50; i++) marksMs.push(await page.evaluate<number>(markOnce));

  await page.getByText(/^All synced/).waitFor({ timeout: 30_000 });
  await context.setOffline(true);
  const noise = await sharp({
    create: {
      width: 2400,
      height: 1800,
      channels: 3,
      background: "#456",
      noise: { type: "gaussian", mean: 120, sigma: 40 },
    },
  })
    .jpeg({ quality: 70 })
    .toBuffer();
  for (let i = 0; i < 20; i++)
    await page
      .locator('main input[type="file"]')
      .first()
      .setInputFiles({ name: `${i}.jpg`, mimeType: "image/jpeg", buffer: Buffer.concat([noise, Buffer.from([i])]) });
  await page.getByText(/4\d waiting to sync/).waitFor({ timeout: 60_000 });
  // 500 entries by the keys a hand would press: a mark, then back to mark again.
  await page.evaluate(`for (let i = 0; i < 480; i++)
    document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "3", bubbles: true }))`);
  await page.getByText(/5[12]\d waiting to sync/).waitFor({ timeout: 60_000 });
  const startMs = performance.now();
  await context.setOffline(false);
  await page.getByText(/^All synced/).waitFor({ timeout: 120_000 });
  const backMs = performance.now() - startMs;
  const { entries } = await (await page.request.get(`${demo.address}/api/deliveries/${delivery}`)).json();

  const pdfMs: number[] = [];
  let pdfBytes = 0;
  for (let i = 0; i < 6; i++) {
    const from = performance.now();
    const pdf = await page.request.get(`${demo.address}/api/deliveries/${delivery}/record.pdf?paper=a4`);
    pdfBytes = (await pdf.body()).length;
    if (i > 0) pdfMs.push(performance.now() - from);
  }
  const packMs: number[] = [];
  for (let i = 0; i < 4; i++) {
    const from = performance.now();
    await (await page.request.get(`${demo.address}/api/deliveries/${delivery}/pack.pdf`)).body();
    if (i > 0) packMs.push(performance.now() - from);
  }
  await browser.close();
  await demo.stop();
  return [
    figureMs("mark to paint with 2,000 entries loaded", marksMs, 50, "paint"),
    {
      what: `back in signal with 500 entries and 20 photos of ${(noise.length / 1e6).toFixed(1)} MB (${entries.length} entries then stored)`,
      value: `${(backMs / 1000).toFixed(1)} s`,
      goal: "10 s",
      isMet: backMs <= 10_000,
    },
    figureMs("record as PDF, 174 topics and 20 photos", pdfMs, 2000, "compute"),
    { what: "its size", value: `${(pdfBytes / 1e6).toFixed(2)} MB`, goal: "3 MB", isMet: pdfBytes <= 3e6 },
    figureMs("owner pack as PDF", packMs, 5000, "compute"),
  ];
}
