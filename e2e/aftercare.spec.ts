import { test } from "./job.ts";
import { expect, expectAccessible, openClockedPage, readPdf, signIn } from "./store.ts";

const phoneSize = { viewport: { width: 390, height: 844 } };

test.describe("with the app kept on the device", () => {
  test.use({ serviceWorkers: "allow" });

  test("an owner uploads a run at one speed, reads what it was like, follows the next plan, and tells hours that move the service", async ({
    page,
    browser,
    store,
    job,
  }, info) => {
    await signIn(page, store, "Ines Marr");
    await page.goto(`${store.address}/deliveries/d-w112/record`);
    await page.getByRole("button", { name: "Make their page" }).click();
    const address = (await page.getByTestId("owner-address").textContent())!;
    await page.goto(`${store.address}/boats/w112`);
    const dueCell = page.getByTestId("due-port-first-service");
    const dueBefore = (await dueCell.textContent())!;
    const readIcs = async () =>
      (await (await page.request.get(`${store.address}/api/boats/w112/calendar.ics`)).text()).replace(/\r\n /g, "");
    const eventOf = (ics: string) =>
      ics.split("BEGIN:VEVENT").find((event) => event.includes("UID:w112-port-first-service-1@ravik"))!;
    const icsBefore = eventOf(await readIcs());

    const phone = await openClockedPage(browser, phoneSize);
    await job.watch(phone.context());
    await phone.goto(address);
    await expectAccessible(phone);
    await job.begin(19);
    await phone.getByRole("link", { name: "Break-in: next run" }).click();
    await phone.getByRole("radio", { name: "From a file" }).click();
    // A broken file first: said where, nothing kept.
    const input = phone.locator('input[type="file"]');
    await input.setInputFiles({
      name: "half.csv",
      mimeType: "text/csv",
      buffer: Buffer.from("time,rpm\n0,700\n1,-20\n2,72x\n3\n"),
    });
    const faults = phone.getByRole("alert").filter({ hasText: "Nothing of this file was kept" });
    await expect(faults).toContainText("Line 3, rpm: rpm must not be negative");
    await expect(faults).toContainText("Line 4, rpm: “72x” is not an engine speed");
    await expect(faults).toContainText("Line 5");
    const recorded = await (await page.request.get(`${store.address}/api/gateway/runs/one-speed`)).body();
    await input.setInputFiles({ name: "tuesday.csv", mimeType: "text/csv", buffer: recorded });
    await phone.getByRole("button", { name: "Save", exact: true }).click();
    const verdict = phone.getByRole("region", { name: "What this run was like" });
    await expect(verdict).toContainText(/12:4\d\spm–1:2\d\spm at 2,800 ± \d+ rpm: longer than \d+ min at one speed/);
    await expect(verdict).toContainText("Change speed every few minutes");
    await expect(phone.getByRole("img", { name: /Engine speed over 6\d minutes, one stretch outside/ })).toBeVisible();
    await expectAccessible(phone);

    // The plan, run as it says and written down, asks for nothing otherwise.
    await phone.getByRole("radio", { name: "60 min" }).click();
    const legs = await phone.getByRole("table").first().getByRole("row").allTextContents();
    expect(legs.length).toBeGreaterThan(6);
    await phone.getByRole("button", { name: "Follow it at the helm" }).click();
    const follow = phone.getByRole("dialog", { name: "The run now" });
    await expect(follow).toContainText("keeps the lookout");
    await phone.reload();
    await expect(phone.getByRole("dialog", { name: "The run now" })).toBeVisible();
    // It is run by the clock: what is skipped would not have been run.
    await phone.clock.fastForward((60 * 60 - 45) * 1000);
    await expect(phone.getByText("Then it is done.")).toBeVisible();
    await phone.getByRole("button", { name: "End here" }).click();
    await expect(phone.getByLabel("rpm of leg 3")).not.toHaveValue("");
    // The last leg was ended early; written down as it was planned: two minutes at idle.
    const last = phone.getByLabel(/^Minutes of leg/).last();
    await last.fill("2");
    await phone.getByRole("button", { name: "Save", exact: true }).click();
    await expect(verdict).toContainText("Just as the break-in asks.");

    // Hours that leap are asked about; then what is due moves, here, at the yard and in the calendar.
    await phone.getByRole("link", { name: "All cards" }).click();
    await phone.getByLabel("Hours, Port engine").fill("19,4");
    await phone.getByRole("button", { name: "Report the hours" }).first().click();
    await phone.getByRole("button", { name: "It is right, much was run" }).click();
    await expect(phone.getByText("Last reported 19.4 h")).toBeVisible();
    // Out on the lake: what is told is kept, also through a reload, and goes when there is signal.
    await phone.context().setOffline(true);
    await phone.getByLabel("Hours, Port engine").fill("19.6");
    await phone.getByRole("button", { name: "Report the hours" }).first().click();
    const kept = phone.getByRole("list", { name: "Kept on this device" });
    await expect(kept).toContainText("19.6 h, Port engine");
    await expectAccessible(phone);
    await phone.reload();
    await expect(kept).toContainText("goes to the yard when there is signal");
    await phone.context().setOffline(false);
    await expect(phone.getByText("Last reported 19.6 h")).toBeVisible();
    await expect(kept).toHaveCount(0);
    await phone.getByRole("link", { name: "What is due" }).click();
    await expect(phone.getByText("First service").first()).toBeVisible();
    await expectAccessible(phone);
    await phone
      .getByLabel(/^Good until: /)
      .first()
      .fill("2031-05-31");
    await expect(phone.getByText(/good until 31 May 2031|good until May 31, 2031/).first()).toBeVisible();
    for (const card of ["Start", "It will not start", "Where is it"]) {
      await phone.getByRole("link", { name: "All cards" }).click();
      await phone
        .getByRole("navigation", { name: "Cards" })
        .getByRole("link", { name: new RegExp(`\\d ?${card}$`) })
        .click();
      await expect(phone.getByRole("heading", { name: card }).first()).toBeVisible();
    }
    await phone.getByRole("link", { name: "All cards" }).click();
    await phone.getByLabel("Your question").fill("Which oil do you put in at the first service?");
    await phone.getByRole("button", { name: "Ask", exact: true }).click();
    await expect(phone.getByText("They will answer.")).toBeVisible();
    await job.done();
    await page.goto(`${store.address}/boats/w112`);
    await expect(dueCell).not.toHaveText(dueBefore);
    await expect(page.getByTestId("forecast-port")).toContainText("First service at 20 h");
    await expectAccessible(page);
    const icsAfter = eventOf(await readIcs());
    const dayOf = (event: string) => /DTSTART;VALUE=DATE:(\d+)/.exec(event)![1]!;
    expect(dayOf(icsAfter) < dayOf(icsBefore)).toBe(true);
    const sequenceOf = (event: string) => Number(/SEQUENCE:(\d+)/.exec(event)![1]);
    expect(sequenceOf(icsAfter)).toBeGreaterThan(sequenceOf(icsBefore));
    await page.goto(`${store.address}/aftercare`);
    await expect(page.getByRole("group", { name: "Boats on the call list" })).toContainText("Dov Anselm");
    const history = await page.request.get(`${store.address}/api/boats/w112/history.pdf`);
    expect(readPdf(await history.body(), info.outputPath("history.pdf"))).toContain("Service history, Wending 23");
  });
});

test("a service manager writes to a buyer, flattens a week that is too full and books a slot", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Ines Marr");
  await page.goto(`${store.address}/aftercare`);
  await expectAccessible(page);
  const list = page.getByRole("group", { name: "Boats on the call list" });
  await list.getByRole("button", { name: /Hollick/ }).click();
  const beside = page.getByRole("region", { name: /Hollick/ });
  await beside.getByRole("radio", { name: "Ask for hours" }).click();
  await expect(beside.getByLabel("Message", { exact: true })).toHaveValue(/hour meter of your Wending 23/);
  await beside.getByRole("button", { name: "Send it" }).click();
  const messages = beside.getByRole("list", { name: "Messages and calls" });
  await expect(messages.getByText("What does the hour meter")).toBeVisible();
  await beside.getByLabel("What was said on the phone").fill("They come on Tuesday");
  await beside.getByRole("button", { name: "Save the call" }).click();
  await expect(messages.getByText("They come on Tuesday")).toBeVisible();

  await page.getByRole("link", { name: "Workshop", exact: true }).click();
  await expect(page.getByTestId("load-says")).toContainText(/more than the workshop can do/);
  await expect(page.getByRole("img", { name: /Expected hours of work in each of 52 weeks/ })).toBeVisible();
  await expectAccessible(page);
  const offers = page.getByRole("region", { name: /^Offer an earlier slot/ });
  const sheet = async () => (await page.request.get(`${store.address}/api/workshop`)).json();
  const before = await sheet();
  const first = before.offers[0];
  const load = (of: typeof before, begins: string) =>
    of.weeks.find((week: { begins: string }) => week.begins === begins).expectedH;
  await offers
    .getByRole("button", { name: /^Book / })
    .first()
    .click();
  const form = offers.getByRole("form", { name: "Book a slot" });
  await expect(form.getByRole("checkbox").first()).toBeVisible();
  await form.getByRole("button", { name: "Book it" }).click();
  await expect(form).toHaveCount(0);
  const after = await sheet();
  expect(load(after, first.fromWeek)).toBeLessThan(load(before, first.fromWeek));
  const booked = after.bookings.find(({ boat }: { boat: string }) => boat === first.boat);
  expect(booked.date >= first.toWeek).toBe(true);

  // A day on which nobody works is refused, in words; then the slot is moved there no more but cancelled and taken back.
  const weeksAhead = Math.round((Date.parse(first.toWeek) - Date.parse(before.weeks[0].begins)) / 604_800_000);
  for (let i = 0; i < weeksAhead; i++) await page.getByRole("button", { name: "week after" }).click();
  const week = page.getByRole("region", { name: /^Week of/ });
  const slot = week.getByRole("listitem").filter({ hasText: first.serial }).last();
  await slot.getByRole("button", { name: "Move" }).click();
  // The demo's weeks begin on Sunday, when nobody works.
  const sunday = first.toWeek;
  await week.getByLabel("Day").fill(sunday);
  await week.getByRole("button", { name: "Move it" }).click();
  await expect(week.getByRole("alert")).toContainText("The workshop does not work on");
  await week.getByRole("button", { name: "Cancel", exact: true }).click();
  await slot.getByRole("button", { name: "Cancel the slot" }).click();
  await week.getByRole("button", { name: "Take it back" }).click();
  await expect(slot.getByRole("button", { name: "Move" })).toBeVisible();

  // It was done before its day: what was done becomes a service of the boat, with its parts.
  await slot.getByRole("button", { name: "Done", exact: true }).click();
  const done = week.getByRole("form", { name: /^What was done on/ });
  await expect(done.getByText(/^◷ This slot is on/)).toBeVisible();
  for (const hours of await done.getByLabel(/^Hours, /).all()) await hours.fill("24.5");
  await done.getByLabel("Note").fill("Came early");
  await done.getByRole("button", { name: "Save what was done" }).click();
  await expect(done).toHaveCount(0);
  await page.goto(`${store.address}/boats/${first.boat}`);
  const history = page.getByRole("region", { name: "What was done" });
  await expect(history.getByRole("row", { name: /Came early/ }).first()).toContainText("Ines Marr");
  const withParts = history.getByRole("row", { name: /Came early/ }).filter({ hasText: /Parts: \w/ });
  await expect(withParts.first()).toBeVisible();
});

test("fuel noted at the dock without signal measures the burn of a break-in counted in tanks", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/boats/p615`);
  await page.getByLabel("Hours on the meter").fill("17,4");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("cell", { name: "17.4 h", exact: true })).toBeVisible();
  await page.getByRole("link", { name: "Next run, runs and fuel" }).click();
  const fuel = page.getByRole("region", { name: "Fuel taken" });
  await expect(fuel).toContainText("6.4 gal/h, measured over 11.9 h and 76.7 gal.");
  await expect(page.getByText(/^About 2\.5 of 3 tanks burnt/)).toBeVisible();
  await expectAccessible(page);
  await page.context().setOffline(true);
  await fuel.getByLabel("Went in", { exact: true }).fill("25,9");
  await fuel.getByRole("button", { name: "Note the fuel" }).click();
  await expect(page.getByRole("list", { name: "Kept on this device" })).toContainText("25.9 gal, full tank");
  await page.context().setOffline(false);
  // 102.6 gal from brim to brim in 16.2 h.
  await expect(fuel).toContainText("6.3 gal/h, measured over 16.2 h and 103 gal.");
  await fuel
    .getByRole("button", { name: /^Correct the fuel of/ })
    .first()
    .click();
  await fuel.getByLabel("What was wrong").fill("The other boat's fuel");
  await fuel.getByRole("button", { name: "Take it out" }).click();
  await expect(fuel).toContainText("measured over 11.9 h");
});
