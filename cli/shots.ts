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
  { name: "today", path: "/", size: tablet },
  { name: "boats", path: "/boats", size: tablet },
  { name: "plan", path: "/deliveries/d-w118", size: tablet },
  { name: "boat", path: "/boats/w097", size: tablet },
  { name: "record", path: "/deliveries/d-w097/record", size: tablet },
  {
    name: "walk",
    path: "/deliveries/d-w118/walk",
    size: tablet,
    before: (page) => walkTo(page, "Kill switch lanyard"),
  },
  { name: "walk-phone", path: "/deliveries/d-w118/walk", size: phone, before: startWalk },
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
    name: "verify",
    path: "/verify",
    size: tablet,
    before: async (page) => {
      const bundle = await page.request.get(new URL("/api/deliveries/d-w097/bundle.zip", page.url()).href);
      const file = { name: "handover-d-w097.zip", mimeType: "application/zip", buffer: await bundle.body() };
      await page.getByLabel("Choose the file").setInputFiles(file);
      await page.getByText("of the seal chain").waitFor();
    },
  },
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
    // The last: from here on it is the owner who is signed in.
    name: "staff",
    path: "/sign-in",
    size: tablet,
    before: async (page) => {
      await page.getByRole("button", { name: /Odile Pellow/ }).click();
      await page.getByRole("list", { name: "Handovers today" }).waitFor();
      await page.getByRole("link", { name: "More" }).click();
      await page.getByRole("link", { name: /^Staff/ }).click();
      await page.getByLabel("Name", { exact: true }).fill("Wenna Trew");
      await page.getByRole("button", { name: "Make a code" }).click();
      await page.getByText(/^It is not kept anywhere/).waitFor();
    },
  },
];

const demo = await startDemoProcess();
const browser = await launchBrowser();
mkdirSync(folder, { recursive: true });
const context = await browser.newContext({ viewport: tablet, reducedMotion: "reduce" });
const page = await context.newPage();
page.setDefaultTimeout(10_000);
await page.goto(`${demo.address}/sign-in`);
await page.getByRole("heading", { name: "Demo accounts" }).waitFor();
await page.getByRole("button", { name: /Nessa Quill/ }).click();
await page.getByRole("list", { name: "Handovers today" }).waitFor();
try {
  for (const { name, path, size, before } of shots) {
    if (only.length > 0 && !only.includes(name)) continue;
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
