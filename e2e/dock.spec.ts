import { test } from "./job.ts";
import { expect, expectAccessible, signIn, startWalk, tinyPng } from "./store.ts";

test("marks made without signal are kept, shown as kept, and sent once when it returns", async ({
  page,
  context,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  await expect(page.getByText(/All synced/)).toBeVisible();
  await context.setOffline(true);
  for (let i = 1; i <= 5; i++) {
    await page.getByRole("button", { name: "They did it" }).click();
    await expect(page.getByText(new RegExp(`^${i} of \\d+ planned topics done`))).toBeVisible();
  }
  await expect(page.getByText("no signal · 5 waiting to sync")).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/All synced/)).toBeVisible({ timeout: 20_000 });
  await page.reload();
  await expect(page.getByText(/^5 of \d+ planned topics done/)).toBeVisible();
  const { entries } = await (await page.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  const marks = entries.filter((entry: { kind: string }) => entry.kind === "mark");
  expect(marks).toHaveLength(5);
});

test("a mark for one of two people stays on the topic and says who did it", async ({ page, store }) => {
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  const title = await page.locator("#topic").textContent();
  await page.getByRole("button", { name: "Next topic" }).click();
  await expect(page.locator("#topic")).not.toHaveText(title!);
  await page.getByRole("button", { name: "Topic before" }).click();
  await expect(page.locator("#topic")).toHaveText(title!);
  await page.getByRole("radio", { name: "Lindy" }).click();
  await page.getByRole("button", { name: "They did it" }).click();
  await expect(page.locator("#topic")).toHaveText(title!);
  await expect(page.getByTestId("topic-mark")).toContainText("did it");
  await expect(page.getByRole("radio", { name: "All here" })).toBeChecked();
});

test("the walk works at 390 wide, by thumb, and the deck plan opens over it", async ({ page, store, job }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  for (const name of ["Explained", "Shown", "They did it", "Later", "Snag", "Not aboard", "Undo"]) {
    const box = (await page.getByRole("button", { name }).boundingBox())!;
    expect(box.height, name).toBeGreaterThanOrEqual(64);
    expect(box.x, name).toBeGreaterThanOrEqual(0);
    expect(box.x + box.width, name).toBeLessThanOrEqual(390);
  }
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await job.begin(10);
  for (const name of ["Explained", "Shown", "They did it", "Explained"]) {
    const before = (await page.locator("#topic").textContent())!;
    await page.getByRole("button", { name, exact: true }).click();
    await expect(page.locator("#topic")).not.toHaveText(before);
  }
  await page.getByRole("button", { name: "Snag" }).click();
  await page.getByLabel("What is wrong").fill("Lamp is dark");
  await page.getByRole("button", { name: "Save the snag" }).click();
  await expect(page.getByText("▲ Lamp is dark").first()).toBeVisible();
  await page.getByRole("button", { name: "Deck plan" }).click();
  await page.getByRole("button", { name: /^Helm, stop/ }).click();
  await expect(page.getByText(/Stop \d+ · Helm/)).toBeVisible();
  await job.done();
  await expectAccessible(page);
});

test("make-ready by the rig's own panel; a walk waits for it and for a stopping snag; the owner may answer for it", async ({
  page,
  browser,
  store,
  job,
}) => {
  await signIn(page, store, "Tobin Ashgrove");
  await job.begin(6);
  await page.getByRole("link", { name: "Open Wending 23 at 2:00 pm" }).click();
  await expect(page.getByRole("heading", { name: "Not ready to be walked" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Start the walk" })).toHaveCount(0);
  await page.getByRole("link", { name: "Go on with make-ready" }).first().click();
  const left = async () => Number(/(\d+) of/.exec((await page.getByText(/of 41 checks/).textContent())!)![1]);
  expect(await left()).toBe(35);
  await expectAccessible(page);
  await page.getByRole("button", { name: "In order: Nav / anchor at Anchor: Anchor light", exact: true }).click();
  await expect(page.getByText("34 of 41 checks")).toBeVisible();
  await page.getByRole("button", { name: "Not in order: Nav / anchor at Anchor: Anchor light" }).click();
  // What is not in order is a snag: the pad opens with the check's own words.
  await expect(page.getByLabel("What is wrong")).toHaveValue("Nav / anchor at Anchor: Anchor light: ");
  await page.getByLabel("What is wrong").fill("Anchor light dark");
  await page.getByRole("radio", { name: "fix before leaving" }).click();
  await page.getByRole("button", { name: "Save the snag" }).click();
  await expect(page.getByText("fix before leaving · nobody yet")).toBeVisible();
  // It turns good: whether the fault is mended is asked there and then.
  await page.getByRole("button", { name: "In order: Nav / anchor at Anchor: Anchor light", exact: true }).click();
  await expect(page.getByRole("group", { name: "Mended?" })).toContainText("Anchor light dark");
  await page.getByRole("button", { name: "Yes, it is mended" }).click();
  await expect(page.getByText("fix before leaving · nobody yet")).toHaveCount(0);
  await job.done();
  for (const name of [/^In order: Keys, papers/, /^In order: Trailer lights/])
    await page.getByRole("button", { name }).click();
  await expect(page.getByText("37 of 41 checks")).toBeVisible();
  await page.getByRole("textbox", { name: /^Tire, port front/ }).fill("44");
  await page.getByRole("textbox", { name: /^Tire, port front/ }).press("Enter");
  await expect(page.getByText("21 psi under the plate's 65 psi.")).toBeVisible();
  await page.getByRole("link", { name: "Today" }).click();
  await expect(page.getByText("Starboard tell-tale weak").first()).toBeVisible();

  const office = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(office, store, "Odile Pellow");
  await office.goto(`${store.address}/deliveries/d-w121/walk`);
  await expect(office.getByText(/Make-ready has 4 of 41 open/)).toBeVisible();
  await office.getByLabel("Why it may start anyway").fill("They came far and know boats");
  await office.getByRole("button", { name: "Allow the start" }).click();
  await office.getByRole("button", { name: "Start the walk" }).click();
  await expect(office.locator("#topic")).toBeVisible();
});

test("everything owed: whose it is, when, the buyer informed, settled with evidence", async ({ page, store }) => {
  await signIn(page, store, "Ines Marr");
  await page.getByRole("link", { name: "Call list" }).click();
  await page.getByRole("link", { name: "Owed", exact: true }).click();
  const late = page.getByRole("region", { name: "Overdue" });
  await expect(late.getByRole("listitem")).toHaveCount(2);
  await expect(late.getByRole("listitem").first()).toContainText("Port trim gauge reads low");
  await expectAccessible(page);
  const rest = page.getByRole("region", { name: /The rest/ });
  const light = rest.getByRole("listitem").filter({ hasText: "Light strip at the bow" });
  await light.getByRole("button", { name: /^Who fixes it, by when/ }).click();
  await light.getByRole("combobox", { name: "Who fixes it" }).selectOption("Tobin Ashgrove");
  await expect(light.getByText(/fix by a date · Tobin Ashgrove/)).toBeVisible();
  await light.getByLabel("Message to Severin Halloway").fill("The part is here. Come by on Friday.");
  await light.getByRole("button", { name: "Send to the buyer", exact: true }).click();
  await expect(light.getByText(/message of .*: (sent|delivered)/)).toBeVisible();
  const { messages } = await (await page.request.get(`${store.address}/api/deliveries/d-p615/messages`)).json();
  expect(messages).toMatchObject([{ recipient: "Severin Halloway", text: "The part is here. Come by on Friday." }]);
  await light.getByRole("button", { name: /^Settle: Light strip/ }).click();
  await light.getByLabel("What was done (the buyer sees this)").fill("Wired in phase, shown to him");
  await light
    .locator('input[type="file"]')
    .setInputFiles({ name: "strip.png", mimeType: "image/png", buffer: tinyPng });
  await expect(light.getByText("1 taken")).toBeVisible();
  await light.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("Light strip at the bow")).toHaveCount(0);
  // What was put off is made up for by marking it, on the same record, sealed as that is.
  const later = rest.getByRole("listitem").filter({ hasText: "Chartplotter" });
  await later.getByRole("button", { name: /^shown: Chartplotter/ }).click();
  await expect(page.getByText("Chartplotter: chart, depth")).toHaveCount(0);
  await page.goto(`${store.address}/deliveries/d-w112/record`);
  await expect(page.getByRole("region", { name: "Added since" })).toContainText(
    "Chartplotter: chart, depth, and the way home: shown",
  );
  await page.goto(`${store.address}/deliveries/d-p615/record`);
  await expect(page.getByText(/Settled: Snag: Light strip/)).toBeVisible();
});

test("boats can be listed and found, a service recorded, and night is remembered", async ({ page, store }) => {
  await signIn(page, store, "Ines Marr");
  await page.getByRole("link", { name: "Boats" }).click();
  await expect(page.getByRole("row").nth(60)).toBeAttached();
  await expectAccessible(page);
  await page.keyboard.press("/");
  await page.getByLabel("Find a boat or a buyer").fill("varnholt");
  await page.getByRole("option", { name: /Ilse Varnholt/ }).click();
  await expect(page.getByText("▲ overdue").first()).toBeVisible();
  await page.getByRole("button", { name: "Record First service, Port engine" }).click();
  const record = page.getByRole("form", { name: "Record First service" });
  await record.getByRole("radio", { name: "Done elsewhere" }).click();
  await record.getByRole("button", { name: "Save the service" }).click();
  await expect(record.getByRole("alert")).toContainText("Who did it, and what shows it");
  await record.getByLabel("Who did it, and what shows it").fill("Yard on the north shore, receipt seen");
  await record.getByLabel("At engine hours").fill("24.5");
  await record.locator('input[accept*="pdf"]').setInputFiles({
    name: "invoice 12.pdf",
    mimeType: "application/pdf",
    buffer: Buffer.from("%PDF-1.7\n%%EOF"),
  });
  await expect(record.getByRole("link", { name: "invoice 12.pdf" })).toBeVisible();
  await record.getByRole("button", { name: "Save the service" }).click();
  await expect(page.getByRole("region", { name: "What was done" })).toContainText("receipt seen");
  const download = page.waitForEvent("download");
  await page.getByRole("region", { name: "What was done" }).getByRole("link", { name: "invoice 12.pdf" }).click();
  expect((await download).suggestedFilename()).toBe("invoice 12.pdf");
  await expect(page.getByRole("row", { name: /Port engine/ }).first()).toContainText("done");
  await page.getByRole("button", { name: /Ines Marr, service: menu/ }).click();
  await page.getByRole("button", { name: "Dark screen" }).click();
  await expectAccessible(page);
  await page.reload();
  await expect(page.locator("html")).toHaveClass("night");
  await page.getByRole("button", { name: /Ines Marr, service: menu/ }).click();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/sign-in/);
  await page.goto(store.address);
  await expect(page).toHaveURL(/sign-in/);
});

test.describe("looking alone", () => {
  test.use({ onlyLooks: true });

  test("an unknown page and an unknown boat say so and lead back", async ({ page, store }) => {
    await signIn(page, store, "Nessa Quill");
    await page.goto(`${store.address}/nowhere`);
    await expect(page.getByRole("heading", { name: "There is no page here" })).toBeVisible();
    await page.goto(`${store.address}/boats/none`);
    await expect(page.getByRole("alert")).toContainText('no boat "none"');
  });
});
