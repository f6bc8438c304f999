import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { format } from "date-fns";
import { nowMsOf, startNewStore } from "../cli/demoProcess.ts";
import { test } from "./job.ts";
import { expect, expectAccessible, readPdf, signIn, startWalk, tinyPng } from "./store.ts";

/** By the index, or by a page it leads to. */
const go = (page: Page, name: string) =>
  page
    .getByRole("link", { name: new RegExp(`^${name}\\b`) })
    .first()
    .click();

test("the next handover: why its order is what it is, in 45 minutes for two, and what is left out", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Nessa Quill");
  await job.begin(1);
  await page.getByRole("link", { name: "Open Wending 23 at 10:30 am" }).click();
  const order = page.getByRole("region", { name: "The order" });
  await expect(order).toContainText(/because|on the way|nearest|before/i);
  const wishes = page.getByRole("region", { name: "Who, where, how long" });
  await expect(wishes.getByRole("status")).toHaveText("2");
  await wishes.getByRole("button", { name: "45" }).click();
  await expect(wishes.getByRole("button", { name: "45" })).toHaveAttribute("aria-pressed", "true");
  const waits = page.getByRole("region", { name: "What waits" });
  await expect(waits).toContainText(/\d+ topics, .* do not fit into 45 min/);
  await waits.locator("summary").first().click();
  await expect(waits).toContainText(/\d+ topics, .* do not fit into 45 min/);
  await job.done();
});

test("twelve topics with every mark; readings where the walk asks", async ({ page, store, job }) => {
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  const title = page.locator("#topic");
  const press = async (name: string) => {
    const before = (await title.textContent())!;
    await page.getByRole("button", { name, exact: true }).click();
    await expect(title).not.toHaveText(before);
  };
  await job.begin(2);
  await page.getByRole("radio", { name: "Lindy" }).click();
  const ofTwo = (await title.textContent())!;
  await page.getByRole("button", { name: /^They did it/ }).click();
  await expect(page.getByTestId("topic-mark")).toContainText("did it");
  await expect(title).toHaveText(ofTwo);
  await press("They did it");
  for (const name of ["Explained", "Shown", "They did it", "Explained"]) await press(name);
  await press("Next topic");
  await press("Topic before");
  await press("Shown");
  for (const name of ["Explained", "Shown"]) await press(name);
  const put = (await title.textContent())!;
  await page.getByRole("button", { name: "Later", exact: true }).click();
  await page.getByRole("button", { name: "out of time" }).click();
  await expect(title).not.toHaveText(put);
  const absent = (await title.textContent())!;
  await page.getByRole("button", { name: "Not aboard" }).click();
  const why = page.getByRole("button", { name: "Sold without it" });
  await expect(why.or(title.filter({ hasNotText: absent })).first()).toBeVisible();
  if (await why.isVisible()) await why.click();
  await expect(title).not.toHaveText(absent);
  const undone = (await title.textContent())!;
  await press("Explained");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(title).toHaveText(undone);
  await page.getByRole("button", { name: "Snag" }).click();
  await page.getByLabel("What is wrong").fill("Cap chain is missing");
  await page
    .locator('form input[type="file"]')
    .first()
    .setInputFiles({ name: "cap.png", mimeType: "image/png", buffer: tinyPng });
  await page.getByRole("button", { name: "Save the snag" }).click();
  await expect(page.getByText("▲ Cap chain is missing").first()).toBeVisible();
  await page.keyboard.press("/");
  await page.getByLabel("Find a topic, a switch or a thing aboard").fill("how do I flush it");
  const found = page.getByRole("region", { name: "Find in this boat" }).getByRole("listitem").getByRole("button");
  await expect(found.first()).toContainText("Flush");
  await found.first().click();
  await expect(title).toContainText("Flush");
  await press("Explained");
  await job.done();

  await job.begin(3);
  await page.keyboard.press("/");
  await page.getByLabel("Find a topic, a switch or a thing aboard").fill("where are the batteries");
  await found.filter({ hasText: "Batteries: where they are" }).click();
  const volts = page.getByLabel(/^Port engine battery/).first();
  await volts.fill("11.8");
  await volts.press("Enter");
  await expect(page.getByText(/% charged, if it has rested\. It may not crank: charge and test it\./)).toBeVisible();
  // Out of the field, so that a key is a key again.
  await title.click();
  await page.keyboard.press("/");
  await page.getByLabel("Find a topic, a switch or a thing aboard").fill("dipstick");
  await found.first().click();
  await page
    .getByRole("group", { name: /^Oil, port/ })
    .getByRole("button", { name: "below the band" })
    .click();
  await expect(page.getByText(/top up with what the engine's manual names/)).toBeVisible();
  await job.done();
});

test("after the seal: a forgotten promise, and the record verified from its file", async ({ page, store, job }) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w097/record`);
  await job.begin(5);
  await page.getByRole("button", { name: "Add a snag or a promise" }).click();
  await page.getByRole("radio", { name: /Promised/ }).click();
  await page.getByLabel("What is owed").fill("A second fender, free of charge");
  await page.getByRole("button", { name: "Save the promise" }).click();
  await expect(page.getByRole("region", { name: /^Owed/ })).toContainText("A second fender, free of charge");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Bundle, JSON" }).click();
  const file = await (await download).path();
  await page.getByRole("link", { name: "Verify a file" }).click();
  await page.getByLabel("Choose the file").setInputFiles(file);
  await expect(page.getByText("Intact, and signed by the store that sealed it.")).toBeVisible();
  await job.done();
});

const longName = "Wolfgang-Amadeo Żółkiewski-Ñandú de la Cruz y Fernández Ågren";

test("a new boat from a template, changed, and its handover booked with phone and e-mail", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Odile Pellow");
  await job.begin(7);
  await page.getByRole("link", { name: "Boats", exact: true }).click();
  await page.getByRole("link", { name: /new boat|describe a boat/i }).click();
  await page.getByRole("button", { name: /^Wending 23/ }).click();
  await page.getByLabel("Hull identification number").fill("SLW23901K626");
  await page.getByRole("button", { name: "Open its boat sheet" }).click();
  const tab = (name: string) => page.getByRole("button", { name: new RegExp(`^${name}`) }).first();
  await page.getByText("Panel", { exact: true }).click();
  for (const label of ["COURTESY", "SPREADER", "PUMP 2"]) {
    await page.getByRole("button", { name: "Add a switch" }).click();
    await page.getByLabel("Printed label").fill(label);
  }
  await page.getByText("Breakers", { exact: true }).click();
  await page.getByRole("button", { name: "Add a breaker or fuse" }).click();
  await page.getByText("Places", { exact: true }).click();
  const extinguisher = page.getByRole("group", { name: /Deck plan/ }).getByRole("button", { name: "Extinguisher" });
  await extinguisher.click();
  await extinguisher.press("Shift+ArrowUp");
  await page.getByText("Trailer", { exact: true }).click();
  await page.getByLabel("Brakes", { exact: true }).selectOption({ label: "electric" });
  await expect(tab("Save the boat")).toBeEnabled();
  await page.getByRole("button", { name: "Save the boat" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();
  await page.getByRole("link", { name: "Boat's page" }).click();
  await page.getByText("Plan a handover").click();
  await page.getByLabel("Who comes").fill(longName);
  const tuesday = new Date(nowMsOf(store.time));
  tuesday.setDate(tuesday.getDate() + ((9 - tuesday.getDay()) % 7 || 7));
  await page.getByLabel("Day", { exact: true }).fill(format(tuesday, "yyyy-MM-dd"));
  await page.getByLabel("Time", { exact: true }).fill("10:00");
  await page.getByLabel("Phone", { exact: true }).fill("555 0166");
  await page.getByLabel("E-mail", { exact: true }).fill("w.zolkiewski@harbour.example");
  await page.getByRole("button", { name: "Plan it" }).click();
  await expect(page.getByText(longName, { exact: true })).toBeVisible();
  await job.done();
  await page.keyboard.press("/");
  await page.getByLabel("Find a boat or a buyer").fill("5550166");
  await expect(page.getByRole("option", { name: /SLW23901K626/ })).toBeVisible();
});

test.describe("themes", () => {
  test.use({ onlyLooks: true });

  test("light and dark: the screen for sun and for night, remembered", async ({ page, store, job }) => {
    await signIn(page, store, "Nessa Quill");
    await job.begin(11);
    const menu = page.getByRole("button", { name: /Nessa Quill, delivery: menu/ });
    await menu.click();
    await page.getByRole("button", { name: "Dark screen" }).click();
    await expect(page.locator("html")).toHaveClass("night");
    await page.getByRole("button", { name: "Sunlight screen" }).click();
    await expect(page.locator("html")).toHaveClass("sun");
    await page.reload();
    await expect(page.locator("html")).toHaveClass("sun");
    await job.done();
  });
});

test("odd input: falling hours are asked about, and two tabs mark at once", async ({ page, context, store, job }) => {
  await signIn(page, store, "Nessa Quill");
  await job.begin(12);
  await page.goto(`${store.address}/boats/w097`);
  const hours = page.getByLabel("Hours on the meter");
  await hours.fill("0.2");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText(/h was read on/);
  await startWalk(page, store);
  const other = await context.newPage();
  await other.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(other.locator("#topic")).toBeVisible();
  await Promise.all([page, other].map((each) => each.getByRole("button", { name: /^They did it/ }).click()));
  for (const each of [page, other]) await expect(each.getByText(/^1 of \d+ planned topics done/)).toBeVisible();
  await other.close();
  await job.done();
});

test("whom to ring: one is written to, one called, one booked, and the message is found", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Ines Marr");
  await job.begin(13);
  await page.getByRole("link", { name: "Call list" }).click();
  const list = page.getByRole("group", { name: "Boats on the call list" });
  await list.getByRole("button", { name: /Hollick/ }).click();
  const beside = page.getByRole("region", { name: /Hollick/ });
  await beside.getByRole("radio", { name: "Ask for hours" }).click();
  await beside.getByRole("button", { name: "Send it" }).click();
  await expect(beside.getByRole("list", { name: "Messages and calls" })).toContainText("hour meter");
  const others = list.getByRole("button");
  await others.filter({ hasNotText: "Hollick" }).first().click();
  await page.getByLabel("What was said on the phone").fill("They come on Tuesday");
  await page.getByRole("button", { name: "Save the call" }).click();
  await expect(page.getByRole("list", { name: "Messages and calls" })).toContainText("They come on Tuesday");
  const booked = others.filter({ hasNotText: "Hollick" }).nth(1);
  const [boatName] = /[A-Z][a-z]+ \d+ \d{5}/.exec((await booked.textContent())!)!;
  await booked.click();
  await page.getByRole("button", { name: /^(Book a|Another) slot$/ }).click();
  const form = page.getByRole("form", { name: "Book a slot" });
  await expect(form.getByRole("checkbox").first()).toBeVisible();
  await form.getByRole("button", { name: /^Book it/ }).click();
  await expect(form).toHaveCount(0);
  // It is rung about no more what it is booked for: where there is nothing else it is gone, else its day stands there.
  await expect
    .poll(async () => (await list.getByRole("button", { name: boatName }).allTextContents()).join())
    .toMatch(/^$|booked \w+ /);
  await go(page, "More");
  await page.getByRole("link", { name: "Messages" }).click();
  const written = page.getByRole("list", { name: "Messages" }).getByRole("listitem").filter({ hasText: "Hollick" });
  await expect(written.first()).toContainText("hour meter");
  await job.done();
});

test("the workshop's peak: when it is, an offer that flattens it, and a holiday that is blocked", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Ines Marr");
  await job.begin(14);
  await go(page, "Workshop");
  await expect(page.getByTestId("load-says")).toContainText(/more than the workshop can do/);
  const offers = page.getByRole("region", { name: /^Offer an earlier slot/ });
  await offers
    .getByRole("button", { name: /^Book / })
    .first()
    .click();
  const form = offers.getByRole("form", { name: "Book a slot" });
  await expect(form.getByRole("checkbox").first()).toBeVisible();
  await form.getByRole("button", { name: "Book it" }).click();
  await expect(form).toHaveCount(0);
  await job.done();

  // The days it is closed are the owner's to say.
  await page.context().clearCookies();
  await signIn(page, store, "Odile Pellow");
  await go(page, "Workshop");
  await page.getByText("Shop capacity and closed days").click();
  await page.getByLabel("Closed from").fill("2027-07-04");
  await page.getByLabel("because").fill("Lake day");
  await page.getByRole("button", { name: "Close these days" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Lake day" })).toBeVisible();
  await page.getByRole("button", { name: "Open again" }).last().click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Lake day" })).toBeVisible();
});

test("two months after: hours and how sure, a lower reading, a changed meter; the first service with its parts", async ({
  page,
  store,
  job,
}, info) => {
  await signIn(page, store, "Ines Marr");
  await page.goto(`${store.address}/boats/w097`);
  await job.begin(15);
  await expect(page.getByTestId("forecast-port")).toContainText(/First service at 20 h/);
  const hours = page.getByLabel("Hours on the meter");
  await hours.fill("18.4");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("18.4").first()).toBeVisible();
  await hours.fill("0.4");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("18.4 h was read on");
  await page.getByRole("button", { name: /meter was changed|new meter/i }).click();
  await expect(page.getByText(/changed meter|meter was changed|new meter/i).first()).toBeVisible();
  await job.done();

  await job.begin(16);
  await page.getByRole("button", { name: "Record First service, Port engine" }).click();
  const record = page.getByRole("form", { name: "Record First service" });
  await record.getByLabel("At engine hours").fill("0.4");
  await record.getByRole("button", { name: "Save the service" }).click();
  const done = page.getByRole("region", { name: "What was done" });
  await expect(done).toContainText("First service");
  await page.getByRole("button", { name: "Record First service, Starboard engine" }).click();
  await record.getByRole("radio", { name: "Done elsewhere" }).click();
  await record.getByLabel("At engine hours").fill("18.1");
  await record.getByLabel("Who did it, and what shows it").fill("Yard on the north shore, receipt seen");
  await record
    .locator('input[accept*="pdf"]')
    .setInputFiles({ name: "receipt.pdf", mimeType: "application/pdf", buffer: Buffer.from("%PDF-1.7\n%%EOF") });
  await expect(record.getByRole("link", { name: "receipt.pdf" })).toBeVisible();
  await record.getByRole("button", { name: "Save the service" }).click();
  await expect(done).toContainText("receipt seen");
  const history = page.getByRole("link", { name: /history/i }).first();
  const pdf = await page.request.get(new URL((await history.getAttribute("href"))!, store.address).href);
  expect(readPdf(await pdf.body(), info.outputPath("history.pdf"))).toMatch(/receipt\s+seen/);
  await job.done();
});

test("a pack: first service at 25 h instead of 20, and the boats' dates follow at once", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Odile Pellow");
  await page.goto(`${store.address}/boats/w097`);
  const due = page.getByTestId("due-port-first-service");
  const before = (await due.textContent())!;
  await job.begin(17);
  await page.getByRole("link", { name: "Library", exact: true }).click();
  await page.getByRole("link", { name: /packs/i }).click();
  await page
    .getByRole("button", { name: /outboard/i })
    .first()
    .click();
  const item = page.getByRole("button", { name: /First service/ }).first();
  await item.click();
  await page
    .getByLabel(/hours, First service|Hours, First service/)
    .first()
    .fill("25");
  await page.getByLabel("Price, First service").fill("$320");
  await page.getByRole("button", { name: /^Save/ }).first().click();
  await expect(page.getByRole("button", { name: /changed here/ }).first()).toBeVisible();
  await job.done();
  await page.goto(`${store.address}/boats/w097`);
  await expect(due).not.toHaveText(before);
});

test("everything taken along: one file of all, and the store's calendar", async ({ page, store, job }) => {
  await signIn(page, store, "Odile Pellow");
  await job.begin(18);
  await go(page, "More");
  await go(page, "Store");
  const download = page.waitForEvent("download");
  await page
    .getByRole("region", { name: /Everything/ })
    .getByRole("link")
    .first()
    .click();
  expect((await download).suggestedFilename()).toMatch(/\.ndjson|\.jsonl|\.json|\.gz/);
  await go(page, "Workshop");
  await page.getByRole("button", { name: "Make the store's calendar address" }).click();
  await expect(page.getByText(/\/api\/feeds\//)).toBeVisible();
  await job.done();
});

test("the owner of the store: staff, store, opening days, backup, what is off course, how first services were kept", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Odile Pellow");
  await job.begin(20);
  await expect(page.getByText(/Off course|Everything is on course/)).toBeVisible();
  await go(page, "More");
  await go(page, "Staff");
  await expect(page.getByText("Nessa Quill").first()).toBeVisible();
  await go(page, "More");
  await go(page, "Store");
  await page.getByRole("textbox", { name: "Phone" }).fill("555 0143");
  await page.getByRole("button", { name: /^Save/ }).first().click();
  await expect(page.getByText(/Saved/).first()).toBeVisible();
  await expect(page.getByRole("region", { name: "Backup" })).toBeVisible();
  await go(page, "Workshop");
  await page.getByText("Shop capacity and closed days").click();
  await page.getByLabel("Sat", { exact: true }).fill("4");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("Saved.")).toBeVisible();
  await go(page, "More");
  await go(page, "Reports");
  const first = page.getByRole("region", { name: "First services kept" });
  await expect(first).toContainText(/\d+ % \(\d+ to \d+\) of the first services that fell due were kept/);
  await expect(page.getByRole("region", { name: "Topics put off" })).toContainText("Put off most");
  await expectAccessible(page);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save as CSV: First services kept" }).click(),
  ]);
  expect(readFileSync(await file.path(), "utf8")).toMatch(/^month of the handover,kept,late,lost,still to come/);
  await job.done();
});

test("from one store to another: a handover's file is taken into a store that knows neither boat nor store", async ({
  page,
  browser,
  store,
  job,
}) => {
  await signIn(page, store, "Odile Pellow");
  const other = await startNewStore(store.time);
  const theirs = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await job.watch(theirs);
  const there = await theirs.newPage();
  await there.goto(other.address);
  for (const [label, value] of [
    ["Code", other.code],
    ["Name of the store", "Tarn Boats"],
    ["Phone", "555 0100"],
    ["Where browsers reach Ravik", other.address],
    ["Your name", "Maud Ferris"],
    ["Sign-in name", "maud"],
    ["Password", "heron rope kettle"],
  ])
    await there.getByLabel(label!, { exact: true }).fill(value!);
  await there.getByRole("button", { name: "Begin" }).click();
  await expect(there.getByRole("heading", { name: "Tarn Boats is ready" })).toBeVisible();

  await job.begin(22);
  await page.getByRole("link", { name: "Boats", exact: true }).click();
  await page.getByRole("link", { name: "Wending 23" }).first().click();
  await page.goto(`${store.address}/deliveries/d-w097/record`);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Bundle with photos, zip" }).click(),
  ]);
  await there.getByRole("link", { name: "Boats", exact: true }).click();
  await there.getByRole("link", { name: "Import a handover" }).click();
  await there.locator('main input[type="file"]').setInputFiles(await file.path());
  await expect(there.getByText("Intact: it is what was sealed.")).toBeVisible();
  await expect(there.getByRole("button", { name: "Import", exact: true })).toBeDisabled();
  await there.getByRole("checkbox").check();
  await there.getByRole("button", { name: "Import", exact: true }).click();
  await expect(there.getByTestId("seal")).toHaveText(/^[0-9a-f]{64}$/);
  await job.done();
  expect(await there.getByTestId("seal").textContent()).toBe(await page.getByTestId("seal").textContent());
  await theirs.close();
  await other.stop();
});

test.describe("papers", () => {
  test.use({ onlyLooks: true });

  test("papers: plan, record, owner pack and history are a touch away and meant for paper", async ({
    page,
    store,
    job,
  }, info) => {
    await signIn(page, store, "Nessa Quill");
    const read = async (paper: string) => {
      const link = page.locator(`a[href*="${paper}.pdf"]`).first();
      await expect(link).toBeVisible();
      const pdf = await page.request.get(new URL((await link.getAttribute("href"))!, store.address).href);
      return readPdf(await pdf.body(), info.outputPath("paper.pdf"));
    };
    await job.begin(24);
    await page.getByRole("link", { name: "Open Wending 23 at 10:30 am" }).click();
    expect(await read("plan")).toMatch(/14 stops, 13 moves/);
    await page.goto(`${store.address}/deliveries/d-w097/record`);
    expect(await read("record")).toContain("Record of handover");
    expect(await read("pack")).toContain("Where is it");
    await page.goto(`${store.address}/boats/w097`);
    expect(await read("history")).toContain("Service history");
    await job.done();
  });
});
