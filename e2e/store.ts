import { execFileSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import { AxeBuilder } from "@axe-core/playwright";
import {
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  test as base,
  expect,
  type Page,
} from "@playwright/test";
import {
  beginTime,
  type DemoHost,
  type DemoProcess,
  type GivenTime,
  makeDemoSeed,
  nowMsOf,
  startDemoHost,
  wallTime,
} from "../cli/demoProcess.ts";

interface TestParts {
  /** The time it is for the server and the browser of this test. */
  readonly time: GivenTime;
  readonly store: DemoProcess;
  /** Set by a test that changes nothing another could see: it shares its store with others of its kind. */
  readonly onlyLooks: boolean;
}
interface WorkerParts {
  /** Where the stores of this worker run. */
  readonly host: DemoHost;
  /** The folder of a demo store made on this day. */
  readonly findSeed: (time: GivenTime) => Promise<string>;
  /** The store of those that only look. */
  readonly findShared: () => Promise<DemoProcess>;
}

/** What a browser opened since is given as its time; one test runs after the other. */
let timeNow: GivenTime = wallTime;
const given = new WeakMap<BrowserContext, GivenTime>();
/**
 * A given day moves pages, and neither cookies nor workers: whatever is tried on one starts with a fresh profile. It moves `Date`
 * alone: Playwright's own clock has timers of its own, under which time steps back when a page is left for the next. A test's own
 * context is made before its time is known, in that of the test before: what is given last counts.
 */
async function giveTime(context: BrowserContext): Promise<void> {
  if (timeNow === wallTime || given.get(context) === timeNow) return;
  given.set(context, timeNow);
  await context.addInitScript((aheadMs) => {
    const page = globalThis as typeof globalThis & { knownDate?: DateConstructor };
    page.knownDate ??= Date;
    const Known = page.knownDate;
    const readNowMs = () => Known.now() + aheadMs;
    globalThis.Date = new Proxy(Known, {
      get: (target, name) => (name === "now" ? readNowMs : Reflect.get(target, name)),
      construct: (target, args, asked) =>
        Reflect.construct(target, args.length === 0 ? [readNowMs()] : args, asked === globalThis.Date ? target : asked),
    });
  }, timeNow.aheadMs);
}

/** A page whose time a test moves on by Playwright's clock, which begins at the test's time and is then the only one. */
export async function openClockedPage(browser: Browser, options: BrowserContextOptions): Promise<Page> {
  isClocked = true;
  const context = await browser.newContext(options).finally(() => {
    isClocked = false;
  });
  const page = await context.newPage();
  await page.clock.install({ time: nowMsOf(timeNow) });
  return page;
}
let isClocked = false;

/** A browser test with a server and a fresh demo store of its own, a copy of one that is made once a day. */
export const test = base.extend<TestParts, WorkerParts>({
  browser: [
    async ({ browser }, use) => {
      const open = browser.newContext.bind(browser);
      browser.newContext = async (options) => {
        const context = await open(options);
        if (!isClocked) await giveTime(context);
        return context;
      };
      await use(browser);
    },
    { scope: "worker" },
  ],
  host: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what a fixture needs from this pattern
    async ({}, use) => {
      const host = startDemoHost();
      await use(host);
      await host.close();
    },
    { scope: "worker" },
  ],
  findSeed: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what a fixture needs from this pattern
    async ({}, use) => {
      const seeds = new Map<string, string>();
      // The demo's days count from the day it is made: what was made before midnight is yesterday's after it.
      await use(async (time) => {
        const day = new Date(nowMsOf(time)).toDateString();
        const seed = seeds.get(day) ?? (await makeDemoSeed(time));
        seeds.set(day, seed);
        return seed;
      });
      for (const seed of seeds.values()) rmSync(seed, { recursive: true, force: true });
    },
    { scope: "worker" },
  ],
  findShared: [
    async ({ findSeed, host }, use) => {
      const shared: Promise<DemoProcess>[] = [];
      const time = beginTime(process.env.RAVIK_TEST_NOW);
      await use(() => {
        if (shared.length === 0) shared.push(findSeed(time).then((seed) => host.start({ seed, time })));
        return shared[0]!;
      });
      for (const store of shared) await (await store).stop();
    },
    { scope: "worker" },
  ],
  onlyLooks: [false, { option: true }],
  // Anew for each test, so that a late evening is one for the last test too; where a store is shared, its own.
  time: async ({ onlyLooks, findShared }, use) => {
    timeNow = onlyLooks ? (await findShared()).time : beginTime(process.env.RAVIK_TEST_NOW);
    await use(timeNow);
  },
  context: async ({ context, time: _ }, use) => {
    await giveTime(context);
    await use(context);
  },
  store: async ({ host, findSeed, findShared, onlyLooks, time }, use) => {
    if (onlyLooks) return use(await findShared());
    const store = await host.start({ seed: await findSeed(time), time });
    await use(store);
    await store.stop();
  },
});

export { expect };

/** Opens the walk of a handover that has not begun, and begins it. */
export async function startWalk(page: Page, store: DemoProcess, delivery = "d-w118") {
  await page.goto(`${store.address}/deliveries/${delivery}/walk`);
  await page.getByRole("button", { name: "Start the walk" }).click();
  await expect(page.locator("#topic")).toBeVisible();
}

export async function signIn(page: Page, store: DemoProcess, name: string): Promise<void> {
  await page.goto(`${store.address}/sign-in`);
  await page.getByRole("button", { name: new RegExp(name) }).click();
  await expect(page.getByRole("list", { name: "Handovers today" })).toBeVisible();
}

/** Nothing that axe calls serious or critical. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ["violations"] })
    .analyze();
  const serious = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
  const said = serious.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(" | ")}`);
  expect(said).toEqual([]);
}

let drawn = 0;
/** Draws a loop on a signature pad, as a finger would: never twice the same. */
export async function drawSignature(page: Page, label: RegExp): Promise<void> {
  const pad = page.getByLabel(label);
  await pad.scrollIntoViewIfNeeded();
  const box = (await pad.boundingBox())!;
  drawn += 1;
  const heightPx = 14 + (drawn % 12) * 2;
  await page.mouse.move(box.x + 20, box.y + 60);
  await page.mouse.down();
  for (let i = 0; i <= 20; i++) {
    await page.mouse.move(box.x + 20 + i * 9, box.y + 60 + Math.sin(i) * heightPx);
  }
  await page.mouse.up();
}

/** The smallest PNG there is: one pixel. */
export const tinyPng = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
  "base64",
);

/** The words of a PDF, by Debian's pdftotext. */
export function readPdf(bytes: Buffer, file: string): string {
  writeFileSync(file, bytes);
  return execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
}
