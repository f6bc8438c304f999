import type { BrowserContext, Page } from "@playwright/test";
import type { DemoProcess } from "../cli/demoProcess.ts";
import { test } from "./job.ts";
import { drawSignature, expect, readPdf, signIn, startWalk, tinyPng } from "./store.ts";

// What is tried here needs the app kept on the device.
test.use({ serviceWorkers: "allow" });

const walkAddress = (store: DemoProcess) => `${store.address}/deliveries/d-w118/walk`;
const tally = (page: Page) => page.getByText(/^\d+ of \d+ planned topics done/);

/** Today's walks are aboard once the app is; from then on there is no signal. */
async function goOut(page: Page, context: BrowserContext, store: DemoProcess) {
  await signIn(page, store, "Nessa Quill");
  await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 20_000 });
  await context.setOffline(true);
}

/** Enters the same marks from the walk's keyboard until all are made. */
async function walkOn(page: Page, until: number) {
  const title = page.locator("#topic");
  await expect(title).toBeVisible();
  for (let made = Number((await tally(page).textContent())!.split(" ")[0]); made < until; made++) {
    const before = (await title.textContent())!;
    await page.keyboard.press("3");
    if (made < until - 1) await expect(title).not.toHaveText(before);
  }
}

/** In the page: how many snags the device's store holds. */
function countSnagsStored(): Promise<number> {
  return new Promise((resolve, reject) => {
    const asked = indexedDB.open("ravik-sync");
    asked.onerror = () => reject(asked.error);
    asked.onsuccess = () => {
      const all = asked.result.transaction("entries").objectStore("entries").getAll();
      all.onsuccess = () => {
        asked.result.close();
        resolve(all.result.filter(({ entry }) => entry.kind === "snag").length);
      };
    };
  });
}

test("a whole handover without signal, the tab killed in the middle, two signatures; sealed once when it arrives", async ({
  page,
  context,
  store,
  job,
}, info) => {
  await goOut(page, context, store);
  await job.begin(9);
  await startWalk(page, store);
  const topics = Number(/of (\d+) planned/.exec((await tally(page).textContent())!)![1]);
  await walkOn(page, 9);
  await page.locator('main input[type="file"]').first().setInputFiles({
    name: "helm.png",
    mimeType: "image/png",
    buffer: tinyPng,
  });
  await expect(page.getByRole("list", { name: /^Photos/ })).toBeVisible();
  await page.keyboard.press("s");
  await page.getByLabel("What is wrong").fill("Cap chain is missing");
  await page.keyboard.press("Enter");
  await expect(page.getByText("▲ Cap chain is missing").first()).toBeVisible();
  // Once the device's own store has it, the tablet may fall flat in the middle: the page is gone without a goodbye.
  await expect.poll(() => page.evaluate(countSnagsStored)).toBe(1);
  await page.close({ runBeforeUnload: false });

  const again = await context.newPage();
  await again.goto(walkAddress(store));
  await expect(tally(again)).toHaveText(new RegExp(`^9 of ${topics}`));
  await expect(again.getByText(/no signal · \d+ waiting to sync/)).toBeVisible();
  await walkOn(again, topics);
  await expect(tally(again)).toHaveText(new RegExp(`^${topics} of ${topics}`));
  await again.keyboard.press("c");
  await expect(again.getByRole("heading", { name: "Close the handover" })).toBeVisible();
  await again.getByRole("button", { name: /are all there/ }).click();
  for (const engine of ["Port engine", "Starboard engine"]) {
    await again.getByLabel(engine, { exact: true }).fill("0.8");
    await again.getByLabel(engine, { exact: true }).press("Enter");
  }
  await drawSignature(again, /Buyer 1 signature/);
  await again.getByRole("button", { name: "Save the buyer 1 signature" }).click();
  await drawSignature(again, /Buyer 2 signature/);
  await again.getByRole("button", { name: "Save the buyer 2 signature" }).click();
  await drawSignature(again, /Staff signature/);
  await again.getByRole("button", { name: "Save the staff signature" }).click();
  await again.getByRole("button", { name: "Close and seal" }).click();
  await expect(again.getByText(/It is sealed when it arrives/)).toBeVisible();
  await again.reload();
  await expect(again.getByText(/It is sealed when it arrives/)).toBeVisible();

  await context.setOffline(false);
  await expect(again.getByRole("heading", { name: "Record of handover" })).toBeVisible({ timeout: 30_000 });
  await expect(again.getByTestId("seal")).toHaveText(/^[0-9a-f]{64}$/);
  await expect(again.getByText(/All synced/)).toBeVisible();
  await job.done();
  const { entries, seal } = await (await again.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  const count = (kind: string) => entries.filter((entry: { kind: string }) => entry.kind === kind).length;
  expect(new Set(entries.map(({ id }: { id: string }) => id)).size).toBe(entries.length);
  expect([count("mark"), count("snag"), count("photo"), count("sign"), count("close")]).toEqual([topics, 1, 1, 3, 1]);
  const bundle = await (await again.request.get(`${store.address}/api/deliveries/d-w118/bundle.json`)).json();
  expect(bundle.sha256).toBe(seal.sha256);
  expect(bundle.handover.photos).toHaveLength(1);
  const pdf = await again.request.get(`${store.address}/api/deliveries/d-w118/record.pdf?paper=a4`);
  const text = readPdf(await pdf.body(), info.outputPath("record.pdf"));
  for (const words of ["Cap chain is missing", "Photos", "Rafe Okonjo-Bell", "Nessa Quill", seal.sha256])
    expect(text).toContain(words);
});

test("two devices on one walk see each other's marks at once; what both mark stands twice, the later counts", async ({
  page,
  browser,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  await expect(page.getByText(/All synced/)).toBeVisible();
  const other = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const engine = await other.newPage();
  await signIn(engine, store, "Tobin Ashgrove");
  await engine.goto(walkAddress(store));
  await expect(tally(engine)).toHaveText(/^0 of/);

  await page.getByRole("button", { name: "They did it" }).click();
  await expect(tally(engine)).toHaveText(/^1 of/, { timeout: 3000 });
  await engine.getByRole("button", { name: /^Engines, stop/ }).click();
  await engine.getByRole("button", { name: "They did it" }).click();
  await expect(tally(page)).toHaveText(/^2 of/, { timeout: 3000 });
  // Out of order at the engines: what is left is ordered anew from there.
  await expect(
    engine.getByText("The stops ahead are in a new order, from where you stand. They keep their numbers."),
  ).toBeVisible();

  // Without signal both mark the same topic; both marks stand when they meet.
  const title = (await page.locator("#topic").textContent())!;
  await other.setOffline(true);
  await page.context().setOffline(true);
  await page.getByRole("button", { name: "They did it" }).click();
  await engine.keyboard.press("/");
  await engine.getByLabel("Find a topic, a switch or a thing aboard").fill(title);
  await engine.getByRole("button", { name: title }).first().click();
  await engine.getByRole("button", { name: "Explained", exact: true }).click();
  await page.context().setOffline(false);
  await other.setOffline(false);
  await page.keyboard.press("/");
  await page.getByLabel("Find a topic, a switch or a thing aboard").fill(title);
  await page.getByRole("button", { name: title }).first().click();
  await expect(page.getByText(/as well, by/)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByTestId("topic-mark")).toContainText("marked explained");
  await other.close();
});

test("another day's walk is saved for offline, and opens, goes on and is made ready without signal", async ({
  page,
  context,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 20_000 });
  const { rig } = await (await page.request.get(`${store.address}/api/boats/s310`)).json();
  await page.goto(`${store.address}/boats/s310`);
  await expect(page.getByRole("heading", { level: 1 })).toContainText(rig.model);
  await page.goto(`${store.address}/deliveries/d-s310`);
  await page
    .getByRole("button", { name: "Save for offline" })
    .or(page.getByText("Saved on this tablet"))
    .first()
    .waitFor();
  const take = page.getByRole("button", { name: "Save for offline" });
  if (await take.isVisible()) await take.click();
  await expect(page.getByText("Saved on this tablet: it can be walked without signal.")).toBeVisible({
    timeout: 20_000,
  });
  await context.setOffline(true);
  await page.goto(`${store.address}/deliveries/d-s310/ready`);
  await page.getByRole("button", { name: "In order: Keys, papers and lanyards counted", exact: true }).click();
  await expect(page.getByText(/no signal · 1 waiting to sync/)).toBeVisible();
  await page.reload();
  await expect(
    page.getByRole("button", { name: "In order: Keys, papers and lanyards counted", exact: true }),
  ).toHaveAttribute("aria-pressed", "true");
  await context.setOffline(false);
  await expect(page.getByText(/^All synced/)).toBeVisible({ timeout: 30_000 });
});

test.describe("looking alone", () => {
  test.use({ onlyLooks: true });

  test("a record is verified without signal, from a cold start: as JSON, as zip with its photos, and altered", async ({
    page,
    context,
    store,
  }) => {
    await signIn(page, store, "Nessa Quill");
    await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 20_000 });
    const fetchBytes = async (name: string) =>
      (await page.request.get(`${store.address}/api/deliveries/d-w097/${name}`)).body();
    const [json, zip] = [await fetchBytes("bundle.json"), await fetchBytes("bundle.zip")];
    await context.setOffline(true);
    await page.close({ runBeforeUnload: false });

    const cold = await context.newPage();
    await cold.goto(`${store.address}/verify`);
    const choose = (name: string, buffer: Buffer) =>
      cold.locator('input[type="file"]').setInputFiles({ name, mimeType: "application/octet-stream", buffer });
    await choose("record.json", json);
    await expect(cold.getByText("Intact, and signed by the store that sealed it.")).toBeVisible();
    await choose("nonsense.json", Buffer.from('{"entries": [null]}'));
    await expect(cold.getByRole("alert")).toBeVisible();
    await choose("record.zip", zip);
    await expect(cold.getByText("Intact, and signed by the store that sealed it.")).toBeVisible();
    await choose("altered.json", Buffer.from(json.toString().replace(/"mark":\s*"(did|told)"/, '"mark":"later"')));
    await expect(cold.getByText("▲ This is not what was sealed.")).toBeVisible();
  });
});

test("a session that has run out locks a saved walk and keeps what was made in it", async ({
  page,
  context,
  store,
}) => {
  await goOut(page, context, store);
  await startWalk(page, store);
  await walkOn(page, 2);
  await context.clearCookies();
  await context.setOffline(false);
  await page.goto(`${store.address}/`);
  await expect(page.getByRole("button", { name: /Nessa Quill/ })).toBeVisible({ timeout: 20_000 });
  await signIn(page, store, "Nessa Quill");
  await page.goto(walkAddress(store));
  await expect(tally(page)).toHaveText(/^2 of/);
  await expect(page.getByText(/All synced/)).toBeVisible({ timeout: 30_000 });
  const { entries } = await (await page.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  expect(entries.filter(({ kind }: { kind: string }) => kind === "mark")).toHaveLength(2);
});

test("what a walk may have to ask opens without signal, from a cold start: a change, a must not aboard, a buyer, a bundle", async ({
  page,
  context,
  store,
}) => {
  await signIn(page, store, "Odile Pellow");
  await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 20_000 });
  await startWalk(page, store);
  await expect(page.getByText(/All synced/)).toBeVisible({ timeout: 20_000 });
  const address = `${store.address}/api/boats/w118/rig`;
  const { version, name, hull, rig } = await (await page.request.get(address)).json();
  const changed = await page.request.put(address, {
    headers: { Origin: store.address },
    data: { version, name, hull, rig: { ...rig, gear: rig.gear.slice(1) } },
  });
  expect(changed.status()).toBe(200);
  await page.reload();
  await expect(page.getByRole("button", { name: "Update what is still to come" })).toBeVisible();
  await page.goto(`${store.address}/deliveries/d-w097/record`);
  await expect(page.getByTestId("seal")).toBeVisible();
  await context.setOffline(true);
  await page.close({ runBeforeUnload: false });

  const cold = await context.newPage();
  await cold.goto(walkAddress(store));
  await expect(cold.getByText("The boat sheet was changed since this walk began.")).toBeVisible();
  await expect(cold.getByText("Updating needs signal.")).toBeVisible();
  await cold.getByRole("button", { name: "Keep it as it is" }).click();
  const why = cold.getByRole("button", { name: "On order, comes later" });
  const title = cold.locator("#topic");
  // The first of the walk are no musts: one tap is enough for those.
  for (let tries = 0; tries < 10 && !(await why.isVisible()); tries++) {
    const before = (await title.textContent())!;
    await cold.getByRole("button", { name: "Not aboard" }).click();
    await expect(why.or(title.filter({ hasNotText: before })).first()).toBeVisible();
  }
  await why.click();
  await expect(why).toBeHidden();
  await expect(cold.getByText(/waiting to sync/)).toBeVisible();
  await cold.goto(`${store.address}/deliveries/d-w118/close`);
  await expect(cold.getByText(/On order, comes later/).first()).toBeVisible();
  await cold.goto(`${store.address}/deliveries/d-w097/record`);
  await expect(cold.getByTestId("seal")).toBeVisible();
  await cold
    .getByRole("link", { name: /^What is held of / })
    .first()
    .click();
  await expect(cold.getByRole("alert").filter({ hasText: /signal/ })).toBeVisible();
  await cold.goto(`${store.address}/bundles`);
  await cold.locator('input[type="file"]').setInputFiles({
    name: "bundle.zip",
    mimeType: "application/zip",
    buffer: Buffer.from("PK"),
  });
  await expect(cold.getByRole("alert").filter({ hasText: /signal/ })).toBeVisible();
});
