import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { dayOf } from "../../core/dates/index.ts";
import { launchBrowser } from "../browser.ts";
import { makeLarge } from "../makeLarge.ts";
import { type Figure, figureMs } from "./figures.ts";
import { startStore } from "./startStore.ts";

const boats = 20_000;
/** Made once, which takes some ten minutes, and kept: the next bench measures on the same. */
const folder = ".data/large";

/** What people look for: a name, part of a hull number, a phone, a buyer. */
const sought = ["wending", "marram", "SLW2", "555 01", "ferrin", "hollick", "tamsin", "millrace 24"];

/** In the page: does what `act` does, and answers when `isShown` holds and the frame that shows it was painted. */
const paintOf = (act: string, isShown: string) => `new Promise((resolve) => {
  const startMs = performance.now();
  const observer = new MutationObserver(() => {
    if (!(${isShown})) return;
    observer.disconnect();
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs)));
  });
  observer.observe(document.body, { childList: true, subtree: true, characterData: true, attributes: true });
  ${act}
})`;

/** In the page: types into the list's own field; answers once the server's answer to it has come and the next frames were painted. */
const findOnce = (text: string) => `new Promise((resolve) => {
  const field = document.querySelector("main input[type=search]");
  const startMs = performance.now();
  window.ask ??= window.fetch;
  window.fetch = async (...question) => {
    const answer = await window.ask(...question);
    if (!String(question[0].url ?? question[0]).includes("find=")) return answer;
    const read = answer.text.bind(answer);
    answer.text = async () => {
      const said = await read();
      requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs))));
      return said;
    };
    return answer;
  };
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, ${JSON.stringify(text)});
  field.dispatchEvent(new Event("input", { bubbles: true }));
})`;

/** How long the screen takes with all of them, the answer of the server included. */
async function timePaint(address: string, cookie: string) {
  const browser = await launchBrowser();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
  const [name, value] = cookie.split("=") as [string, string];
  await context.addCookies([{ name, value, url: address }]);
  const page = await context.newPage();
  const rows = "document.querySelectorAll('main tbody tr').length > 11";
  const go = (label: string) =>
    `[...document.querySelectorAll("nav a")].find((each) => each.textContent.trim().startsWith("${label}")).click();`;
  await page.goto(`${address}/boats`);
  await page.locator("main tbody tr").first().waitFor();
  const [boatsPaintMs, findPaintMs]: [number[], number[]] = [[], []];
  for (let i = 0; i < 40; i++) {
    await page.evaluate(go("Library"));
    await page.getByLabel("Read on this boat").waitFor();
    boatsPaintMs.push(await page.evaluate<number>(paintOf(go("Boats"), rows)));
  }
  for (let i = 0; i < 100; i++) {
    // A word that nobody looked for before, so that the server is asked each time.
    const word = sought[i % sought.length]!.slice(0, 3 + (i % 3));
    const text = `${word} ${i}`;
    findPaintMs.push(await page.evaluate<number>(findOnce(text)));
  }
  await browser.close();
  return { boatsPaintMs, findPaintMs };
}

/** Makes a backup by the command, as the server does every night, and writes to the store all the while. */
async function timeBackup(write: () => Promise<{ ms: number }>) {
  const to = mkdtempSync(join(tmpdir(), "ravik-backup-"));
  const startMs = performance.now();
  const env = { ...process.env, RAVIK_DATA: folder, RAVIK_BACKUP_FREE: "0" };
  const child = spawn("nice", ["-n", "10", process.execPath, "dist/server/backup.js", to], { env, stdio: "ignore" });
  const ended = new Promise<number | null>((resolve) => child.once("close", resolve));
  const writesMs: number[] = [];
  let status: number | null | undefined;
  void ended.then((code) => {
    status = code;
  });
  while (status === undefined) {
    writesMs.push((await write()).ms);
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  const wholeMs = performance.now() - startMs;
  rmSync(to, { recursive: true, force: true });
  if (status !== 0) throw new Error(`backup ended with ${status}`);
  return { wholeMs, writesMs };
}

/** A store of 20,000 boats and all their handovers: its first walk after a start, its call list, its workshop, its memory. */
export async function benchLarge(): Promise<Figure[]> {
  if (!existsSync(join(folder, "ravik.sqlite"))) await makeLarge(boats, folder);
  const firstMs: number[] = [];
  for (let i = 0; i < 3; i++) {
    const server = await startStore(folder, "ines");
    firstMs.push((await server.call("GET", "/api/deliveries/d-w118")).ms);
    await server.stop();
  }
  const { child, call, stop, address, headers } = await startStore(folder, "ines");
  await call("GET", "/api/care");
  const [careMs, workshopMs, boatsMs, foundMs]: [number[], number[], number[], number[]] = [[], [], [], []];
  await call("GET", "/api/boats");
  // Often enough that one sweep of the memory is not what a twentieth of them says.
  for (let i = 0; i < 125; i++) {
    const list = await call("GET", "/api/boats");
    const found = await call("GET", `/api/boats?find=${encodeURIComponent(sought[i % sought.length]!)}`);
    if (i < 5) continue;
    boatsMs.push(list.ms);
    foundMs.push(found.ms);
  }
  for (let i = 0; i < 45; i++) {
    // Hours come in all the while: what is known of that boat is worked out anew.
    const date = dayOf(Date.now(), "UTC");
    const reading = { id: ulid(), engine: "port", date, hours: 200 + i / 10, source: "phone", answer: "as-read" };
    await call("POST", "/api/boats/w097/readings", reading);
    const care = await call("GET", "/api/care");
    const workshop = await call("GET", "/api/workshop");
    await call("GET", "/api/today");
    if (i < 5) continue;
    careMs.push(care.ms);
    workshopMs.push(workshop.ms);
  }
  const reportsMs: number[] = [];
  for (let i = 0; i < 4; i++) {
    const date = dayOf(Date.now(), "UTC");
    const reading = { id: ulid(), engine: "port", date, hours: 300 + i, source: "phone", answer: "as-read" };
    await call("POST", "/api/boats/w097/readings", reading);
    const reports = await call("GET", "/api/reports");
    // The first also learns what the others go by.
    if (i > 0) reportsMs.push(reports.ms);
  }
  const backup = await timeBackup(() => {
    const reading = { id: ulid(), engine: "port", date: dayOf(Date.now(), "UTC"), hours: 320, source: "phone" };
    return call("POST", "/api/boats/w097/readings", { ...reading, answer: "as-read" });
  });
  await call("GET", "/api/owed");
  const { boatsPaintMs, findPaintMs } = await timePaint(address, headers.cookie!);
  const mostMb = Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, "utf8"))![1]) / 1000;
  await stop();
  const of = `${boats.toLocaleString("en-GB")} boats, 1.3 million entries`;
  return [
    figureMs(`first walk opened after a start, ${of}`, firstMs, 2000, "compute"),
    figureMs("call list of that store, hours coming in", careMs, 150, "compute"),
    figureMs("boats of that store, to the last byte", boatsMs, 60, "compute"),
    figureMs("a boat, buyer, hull or phone found among them, to the last byte", foundMs, 60, "compute"),
    figureMs("Boats, from the touch to the paint", boatsPaintMs, 100, "paint"),
    figureMs("Find, from the letter to the paint of what is found", findPaintMs, 100, "paint"),
    figureMs("all reports of two years of that store, counted anew", reportsMs, 10_000, "compute"),
    figureMs("backup of that store, copied, proved and named while it is in use", [backup.wholeMs], 300_000, "compute"),
    figureMs("a reading stored meanwhile", backup.writesMs, 300, "disk"),
    figureMs("workshop of that store, hours coming in", workshopMs, 300, "compute"),
    {
      what: "memory of that server, the most it had",
      value: `${mostMb.toFixed(0)} MB`,
      goal: "500 MB",
      isMet: mostMb < 500,
    },
  ];
}
