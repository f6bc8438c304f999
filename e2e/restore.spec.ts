import { execFileSync } from "node:child_process";
import { cpSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { startServer, stopChild } from "../cli/demoProcess.ts";
import { expect, signIn, startWalk, test, tinyPng } from "./store.ts";

// What is tried here needs the app kept on the device.
test.use({ serviceWorkers: "allow" });

const tally = (page: Page) => page.getByText(/^\d+ of \d+ planned topics done/);
async function mark(page: Page, key: string) {
  const title = page.locator("#topic");
  const before = (await title.textContent())!;
  await page.keyboard.press(key);
  await expect(title).not.toHaveText(before);
}

test("a store whose folder was deleted is put back; a tablet brings what came after the backup, sent or not", async ({
  page,
  context,
  browser,
  findSeed,
  time,
}, info) => {
  const folder = info.outputPath("store");
  const backups = info.outputPath("backups");
  cpSync(await findSeed(time), folder, { recursive: true });
  const env = { ...process.env, RAVIK_DATA: folder, RAVIK_BACKUP_FREE: "0", RAVIK_LOG: "error" };
  const run = (name: string, ...args: string[]) =>
    execFileSync(process.execPath, [`dist/server/${name}.js`, ...args], { env, encoding: "utf8" });
  const first = await startServer("demo", { RAVIK_DATA: folder, PORT: "0" }, time);
  const store = { address: `http://127.0.0.1:${first.port}`, dataFolder: folder, time, stop: async () => undefined };
  await signIn(page, store, "Nessa Quill");
  await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 90_000 });
  await startWalk(page, store);
  await mark(page, "3");
  await expect(page.getByText("All synced")).toBeVisible();
  expect(run("backup", backups)).toContain("verified");

  // After the backup: two marks and a photo that are sent, then two marks that are not.
  await mark(page, "3");
  await mark(page, "2");
  const picture = { name: "helm.png", mimeType: "image/png", buffer: tinyPng };
  await page.locator('main input[type="file"]').first().setInputFiles(picture);
  await expect(page.getByRole("list", { name: /^Photos/ })).toBeVisible();
  await expect(page.getByText("All synced")).toBeVisible();
  await context.setOffline(true);
  await mark(page, "3");
  await mark(page, "3");
  await expect(page.getByText(/2 waiting to sync/)).toBeVisible();
  const done = (await tally(page).textContent())!.split(" ")[0];

  await stopChild(first.child);
  rmSync(folder, { recursive: true });
  const backup = join(backups, readdirSync(backups)[0]!);
  expect(run("restore", backup)).toContain("is the store of");
  const second = await startServer("demo", { RAVIK_DATA: folder, PORT: String(first.port) }, time);
  await context.setOffline(false);
  await expect(page.getByText("All synced")).toBeVisible({ timeout: 90_000 });
  await expect
    .poll(async () => (await page.request.get(`${store.address}/api/deliveries/d-w118`)).json().then(countMarks))
    .toBe(5);
  await page.reload();
  await expect(tally(page)).toHaveText(new RegExp(`^${done} of`));

  // Whoever opens it elsewhere sees the same; the owner sees what is missing and lets the store go on.
  const office = await (await browser.newContext()).newPage();
  await signIn(office, store, "Odile Pellow");
  await office.getByRole("link", { name: /The store was put back/ }).click();
  const restored = office.getByRole("region", { name: "Put back from a backup" });
  await expect(restored.getByRole("list", { name: "Missing photos" }).getByRole("listitem")).toHaveCount(1);
  await expect(restored.getByRole("heading", { name: "Nothing is sent until you say so" })).toBeVisible();
  await restored
    .getByRole("button", { name: /^Go on/ })
    .first()
    .click();
  await expect(restored.getByText(/Odile Pellow let jobs and messages go on/)).toBeVisible();
  await office.close();
  await stopChild(second.child);
});

const countMarks = ({ entries }: { entries: readonly { kind: string }[] }) =>
  entries.filter(({ kind }) => kind === "mark").length;
