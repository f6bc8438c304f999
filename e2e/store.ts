import { execFileSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import { AxeBuilder } from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";
import { type DemoProcess, makeDemoSeed, startDemoProcess } from "../cli/demoProcess.ts";

/** A browser test with a server and a fresh demo store of its own, a copy of one that is made once a day. */
export const test = base.extend<{ store: DemoProcess }, { findSeed: () => Promise<string> }>({
  findSeed: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what a fixture needs from this pattern
    async ({}, use) => {
      const seeds = new Map<string, string>();
      // The demo's days count from the day it is made: what was made before midnight is yesterday's after it.
      await use(async () => {
        const day = new Date().toISOString().slice(0, 10);
        const seed = seeds.get(day) ?? (await makeDemoSeed());
        seeds.set(day, seed);
        return seed;
      });
      for (const seed of seeds.values()) rmSync(seed, { recursive: true, force: true });
    },
    { scope: "worker" },
  ],
  store: async ({ findSeed }, use) => {
    const store = await startDemoProcess(await findSeed());
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
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
  const said = serious.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(" | ")}`);
  expect(said).toEqual([]);
}

/** Draws a loop on a signature pad, as a finger would. */
export async function drawSignature(page: Page, label: RegExp): Promise<void> {
  const pad = page.getByLabel(label);
  await pad.scrollIntoViewIfNeeded();
  const box = (await pad.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 60);
  await page.mouse.down();
  for (let i = 0; i <= 20; i++) {
    await page.mouse.move(box.x + 20 + i * 9, box.y + 60 + Math.sin(i) * 25);
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
