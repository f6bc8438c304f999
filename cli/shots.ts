import { mkdirSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { launchBrowser } from "./browser.ts";
import { startDemoProcess } from "./demoProcess.ts";

/** One picture of each main view from a fresh demo store: `npm run shots [-- folder [name …]]`. */
const [folder = "docs/screenshots", ...only] = process.argv.slice(2);

const tablet = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };

interface Shot {
  readonly name: string;
  readonly path: string;
  readonly size: { width: number; height: number };
  /** Who looks at it, where that is not the specialist. */
  readonly who?: string;
  readonly before?: (page: Page) => Promise<void>;
}

/** A walk begins by an act; one that has begun goes on. */
const startWalk = async (page: Page) => {
  const start = page.getByRole("button", { name: "Start the walk" });
  await start.or(page.locator("#topic")).first().waitFor();
  if (await start.isVisible()) await start.click();
  await page.locator("#topic").waitFor();
};

const walkTo = async (page: Page, title: string) => {
  await startWalk(page);
  for (let i = 0; i < 80; i++) {
    if (((await page.locator("#topic").textContent()) ?? "").startsWith(title)) return;
    await page.keyboard.press(i % 5 === 4 ? "1" : "3");
  }
};

const waitForChart = async (page: Page) => {
  await page.getByRole("img").locator("path").first().waitFor({ state: "attached" });
};

const shots: Shot[] = [
  { name: "boats", path: "/boats", size: tablet },
  { name: "plan", path: "/deliveries/d-w118", size: tablet },
  { name: "boat", path: "/boats/w097", size: tablet },
  { name: "record", path: "/deliveries/d-w097/record", size: tablet },
  {
    name: "walk",
    path: "/deliveries/d-w118/walk",
    size: tablet,
    before: async (page) => {
      await walkTo(page, "Kill switch lanyard");
      await page.getByText("All synced").waitFor();
    },
  },
  {
    name: "launch-phone",
    path: "/deliveries/d-w118/steps/launch",
    size: phone,
    before: async (page) => {
      const done = page.getByRole("button", { name: "Done", exact: true });
      for (let step = 0; step < 3; step++) await done.click();
    },
  },
  { name: "reports", path: "/reports", size: tablet, who: "Ines Marr", before: waitForChart },
  {
    name: "trip",
    path: "/deliveries/d-w097/trip",
    size: tablet,
    before: async (page) => {
      const legs = [
        ["North point", "18"],
        ["Sallow island", "9"],
      ] as const;
      for (const [i, [to, nm]] of legs.entries()) {
        await page.getByRole("button", { name: "Add a leg" }).click();
        await page.getByLabel(`Leg ${i + 1} to`, { exact: true }).fill(to);
        await page.getByLabel(`Miles ${i + 1}`, { exact: true }).fill(nm);
      }
      await page.getByLabel("Cruising speed", { exact: true }).fill("18");
      await page.getByLabel("Burn at that speed, all engines", { exact: true }).fill("18");
      await page.getByLabel(/^Time and knots/).fill("08:00 5\n10:00 9\n13:00 14\n15:30 22\n18:00 16\n21:00 9");
      await page.getByRole("button", { name: "Take this wind" }).click();
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  { name: "ready", path: "/deliveries/d-w121/ready", size: tablet },
  { name: "aftercare", path: "/aftercare", size: tablet },
  { name: "workshop", path: "/aftercare/workshop", size: tablet, before: waitForChart },
  {
    name: "runs",
    path: "/boats/w112/runs",
    size: tablet,
    before: async (page) => {
      await page.getByRole("radio", { name: "From the engine gateway" }).click();
      await page.getByRole("button", { name: 'Take "Cruising at one speed"' }).click();
      await page.getByRole("button", { name: "Save", exact: true }).click();
      await page.getByText("to change next time").waitFor();
      await waitForChart(page);
      await page.getByText("Next run.").scrollIntoViewIfNeeded();
    },
  },
  {
    name: "power",
    path: "/boats/f207/power",
    size: tablet,
    before: async (page) => {
      await page.getByRole("button", { name: "As it is often left" }).click();
      await waitForChart(page);
    },
  },
  {
    name: "finder",
    path: "/boats/w097/finder",
    size: tablet,
    before: async (page) => {
      await page.getByLabel("What does not work?", { exact: true }).fill("beeps but won't start");
      await page.getByRole("button", { name: "Does not work: Port engine starts" }).click();
      await page.getByRole("heading", { name: "What it may be" }).waitFor();
    },
  },
  {
    name: "owner-phone",
    path: "/deliveries/d-p615/record",
    size: tablet,
    before: async (page) => {
      await page.getByRole("button", { name: "Make their page" }).click();
      const address = await page.getByTestId("owner-address").textContent();
      await page.setViewportSize(phone);
      await page.goto(address!);
      await page.getByRole("heading", { level: 1 }).waitFor();
    },
  },
  { name: "close", path: "/deliveries/d-w118/close", size: tablet },
  {
    name: "rig-places",
    path: "/boats/h402/rig",
    size: tablet,
    before: async (page) => {
      await page.getByRole("tab", { name: /^Places/ }).click();
      await page.getByRole("button", { name: "House battery", exact: true }).first().focus();
    },
  },
  {
    name: "library",
    path: "/library",
    size: tablet,
    before: (page) => page.getByLabel("Find a topic").fill("drain plug"),
  },
  {
    name: "today",
    path: "/",
    size: tablet,
    // A morning, at whatever hour the pictures are taken; last, for the page's clock stays so.
    before: async (page) => {
      await page.clock.setFixedTime(`${new Date().toISOString().slice(0, 10)}T09:40:00Z`);
      await page.reload();
      await page.getByRole("region", { name: "Now and next" }).waitFor();
      await page.getByText("saved on this tablet").first().waitFor();
    },
  },
];

const demo = await startDemoProcess();
const browser = await launchBrowser();
mkdirSync(folder, { recursive: true });
const signIn = async (who: string) => {
  const context = await browser.newContext({ viewport: tablet, reducedMotion: "reduce" });
  const page = await context.newPage();
  page.setDefaultTimeout(10_000);
  await page.goto(`${demo.address}/sign-in`);
  await page.getByRole("heading", { name: "Demo accounts" }).waitFor();
  await page.getByRole("button", { name: new RegExp(who) }).click();
  await page.getByRole("list", { name: "Handovers today" }).waitFor();
  return page;
};
try {
  const nessa = await signIn("Nessa Quill");
  for (const { name, path, size, who, before } of shots) {
    if (only.length > 0 && !only.includes(name)) continue;
    const page = who === undefined ? nessa : await signIn(who);
    await page.setViewportSize(size);
    await page.goto(demo.address + path);
    await page.getByRole("heading", { level: 1 }).first().waitFor();
    await page.waitForLoadState("networkidle");
    await before?.(page);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  }
} finally {
  await browser.close();
  await demo.stop();
}
