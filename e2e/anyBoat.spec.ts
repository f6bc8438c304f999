import type { Page } from "@playwright/test";
import { test } from "./job.ts";
import { expect, expectAccessible, signIn } from "./store.ts";

const tab = (page: Page, name: string) => page.getByRole("tab", { name: new RegExp(`^${name}`) });

async function fill(page: Page, numbers: Record<string, string>) {
  for (const [label, value] of Object.entries(numbers)) await page.getByLabel(label, { exact: true }).fill(value);
}

test("a boat that no template fits is described in under forty actions, all figures read from plates with it", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Odile Pellow");
  await job.begin(25);
  await page.getByRole("link", { name: "Boats" }).click();
  await page.getByRole("link", { name: "New boat" }).click();
  await page.getByRole("button", { name: /^Nothing/ }).click();
  await page.getByLabel("Kind of boat").selectOption("runabout");
  await fill(page, { Maker: "Undermoor Aluminum", Model: "Tern 14", "Length overall": "14' 5\"", Beam: "5' 11\"" });
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Tern 14");
  await page.getByLabel("Hull identification number").fill("UMA14007C626");
  await page.getByRole("button", { name: "Open its boat sheet" }).click();
  await page.getByRole("button", { name: /^Put all \d+ where such boats have them/ }).click();
  // The horn: its switch and its breaker in one form.
  await page.getByRole("button", { name: /^Horn: what feeds it is not described/ }).click();
  await page.getByRole("button", { name: "Add its power, switch and breaker" }).click();
  // What is to be read off plates and labels, in one place.
  await tab(page, "To do").click();
  await fill(page, { "Dry hull": "700", Engines: "115", "Gear carried on the road": "90", "Ballast tanks": "0" });
  await fill(page, { "Draft at the stern, engine up": "10", "Engine: rated to": "6000" });
  await fill(page, { "Fuel: holds up to": "6", "Battery: capacity, 20-hour rating": "85" });
  await fill(page, { Ball: "2", "Tire pressure, cold": "50", "Gross limit": "1,980", "Trailer alone": "400" });
  await fill(page, {
    "Axles, limit in all": "1,980",
    Tires: "2",
    "Limit of one tire": "990",
    "Coupler, limit": "3300",
  });
  await fill(page, { "Tongue, limit": "165", "Tongue weight as it stands": "120", "Bunks above the ground": "18" });
  await fill(page, { "Fender ahead of transom": "63", "Top of fender above the ground": "28" });
  await page.getByRole("button", { name: "I looked: all stand right" }).click();
  await expect(page.getByText("Nothing is left to do.")).toBeVisible();
  await page.getByRole("button", { name: "Save the boat" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();
  await job.done();
});

test("a boat is described from nothing until nothing is left to do, and can then be walked", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Odile Pellow");
  await page.getByRole("link", { name: "Boats" }).click();
  await page.getByRole("link", { name: "New boat" }).click();
  await page.getByRole("button", { name: /^Nothing/ }).click();
  await page.getByLabel("Kind of boat").selectOption("runabout");
  await fill(page, { Maker: "Undermoor Aluminium", Model: "Tern 14", "Length overall": "4,4", Beam: "1.8" });
  await page.getByLabel("Name", { exact: true }).fill("Tern 14");
  await page.getByLabel("Hull identification number").fill("UMA14007C6");
  await expect(page.getByText(/has 10 characters/)).toBeVisible();
  await page.getByLabel("Hull identification number").fill("UMA14007C626");
  await expect(page.getByText("Built March 2026, model year 2026")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Open its boat sheet" }).click();

  await expect(page.getByText("Where is the extinguisher?")).toBeVisible();
  await expectAccessible(page);
  // Everything that is only missing a place: put down one after the other, the first by touching the plan.
  const missing = page.getByRole("button", { name: /Put it on the plan/ });
  await missing.first().click();
  const plan = page.getByRole("complementary", { name: "Deck plan" }).getByRole("group");
  const box = (await plan.boundingBox())!;
  await plan.click({ position: { x: box.width / 2, y: box.height * 0.72 } });
  await expect(page.getByLabel("Called").first()).toHaveValue("Drain plug");
  await page.getByLabel("How to reach it").fill("Transom, low, port of the engine");
  const plug = page.getByRole("button", { name: "Drain plug", exact: true }).first();
  await plug.focus();
  // The plan draws the focus of its things itself: the browser's own outline is measured in the boat's metres.
  await expect(plug).toHaveCSS("outline-style", "none");
  await plug.click();
  await expect(plug).toHaveCSS("outline-style", "none");
  const forward = page.getByLabel("Forward of transom", { exact: true }).first();
  const before = await forward.inputValue();
  await page.keyboard.press("Shift+ArrowDown");
  await expect(forward).not.toHaveValue(before);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(forward).toHaveValue(before);
  for (;;) {
    await tab(page, "To do").click();
    if ((await missing.count()) === 0) break;
    await missing.first().click();
    await page.getByRole("button", { name: "Put it in the middle" }).click();
    await expect(page.getByLabel("How to reach it")).toBeVisible();
  }

  await tab(page, "Power").click();
  await page.getByRole("button", { name: "Add the battery and switch this scheme needs" }).click();
  await expect(page.getByRole("list", { name: "Batteries" })).toContainText("not read yet");
  await page
    .getByRole("list", { name: "Batteries" })
    .getByRole("button", { name: /^Battery/ })
    .click();
  await fill(page, { "Capacity, 20-hour rating": "85" });
  await expect(page.getByRole("list", { name: "Batteries" })).toContainText("85 Ah");
  await tab(page, "Panel").click();
  await page.getByRole("button", { name: "Add a switch" }).click();
  await page.getByLabel("Printed label").fill("HORN");
  await page.getByLabel("Kind").selectOption("momentary");
  await page.getByRole("combobox", { name: "“Pressed” powers" }).fill("Horn");
  await page.getByRole("option", { name: "Add “Horn”" }).click();
  await expect(page.getByRole("list", { name: "Switches" })).toContainText("Pressed: Horn");
  await tab(page, "Breakers").click();
  await page.getByRole("button", { name: "Add a breaker or fuse" }).click();
  await page.getByRole("combobox", { name: "Feeds" }).click();
  await page.getByRole("option", { name: "Horn" }).click();
  await tab(page, "Boat").click();
  await fill(page, {
    "Dry hull": "700",
    Engines: "115",
    "Gear carried on the road": "90",
    "Ballast tanks": "0",
    "Draft at the stern, engine up": "10",
  });
  await tab(page, "Engines").click();
  await page
    .getByRole("list", { name: "Engines" })
    .getByRole("button", { name: /^Engine/ })
    .click();
  await page.getByLabel("Rated to", { exact: true }).fill("6000");
  await tab(page, "Trailer").click();
  await fill(page, {
    Ball: "50 mm",
    "Tire pressure, cold": "50",
    "Gross limit": "1,980",
    "Trailer alone": "400",
    "Axles, limit in all": "1,980",
    Tires: "2",
    "Limit of one tire": "990",
    "Coupler, limit": "3300",
    "Tongue, limit": "165",
    "Tongue weight as it stands": "120",
    "Bunks above the ground": "18",
    "Fender ahead of transom": "63",
    "Top of fender above the ground": "28",
  });
  await tab(page, "Tanks").click();
  await page.getByRole("button", { name: "Add a tank" }).click();
  await fill(page, { "Holds up to": "25 L" });
  await expectAccessible(page);
  for (;;) {
    await tab(page, "To do").click();
    const place = page.getByRole("button", { name: /Put it on the plan|where is it filled/ });
    if ((await place.count()) === 0) break;
    const text = (await place.first().textContent())!;
    await place.first().click();
    if (/Put it on the plan/.test(text)) {
      await page.getByRole("button", { name: "Put it in the middle" }).click();
      continue;
    }
    // A tank wants a fill, which is put on the plan first and then named at the tank.
    await tab(page, "Places").click();
    await page.getByRole("button", { name: /^Fill/ }).first().click();
    await page.getByRole("button", { name: "Put it in the middle" }).click();
    await tab(page, "Tanks").click();
    await page.getByRole("button", { name: /^Fuel/ }).click();
    await page.getByLabel("Filled or emptied at").selectOption({ label: "Fill cap (Helm)" });
  }
  await expect(page.getByText("Nothing is left to do.")).toBeVisible();
  await page.reload();
  await expect(page.getByRole("button", { name: "Save the boat" })).toBeEnabled();
  await page.getByRole("button", { name: "Save the boat" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();
  await page.reload();
  await expect(tab(page, "To do")).toBeVisible();
  await tab(page, "To do").click();
  await expect(page.getByText("Nothing is left to do.")).toBeVisible();

  await page.getByRole("link", { name: "Boat's page" }).click();
  await page.getByText("Plan a handover").click();
  await page.getByLabel("Who comes").fill("Solveig Aas, Per Aas");
  await page.getByRole("button", { name: "Plan it" }).click();
  await expect(page.getByText("Solveig Aas and Per Aas", { exact: true })).toBeVisible();
  await expect(page.getByRole("region", { name: "The order" })).toContainText("Drain plug");
});

test("a stock list of twelve rows, two bad and one that no template fits: what is good goes in once, what is bad is said", async ({
  page,
  store,
  job,
}) => {
  const list = [
    "HIN,Modell,Model year,Type,Length",
    ...[11, 15, 16, 17, 18, 19, 20].map((serial) => `SLW203${serial}B626,Ferrin 20,2026,bowrider,20 ft`),
    "SLW20312Z626,Ferrin 20,2026,bowrider,20 ft",
    ",Ferrin 20,2026,bowrider,20 ft",
    "SLW20313B626,Zephyr,2026,airship,20 ft",
    "SLW20314B626,Ferrin 20,twenty,bowrider,20 ft",
    "SLW23118K526,Wending 23,2026,centre console,23 ft",
  ].join("\n");
  const file = { name: "stock.csv", mimeType: "text/csv", buffer: Buffer.from(list) };
  await signIn(page, store, "Odile Pellow");
  await job.begin(21);
  await page.getByRole("link", { name: "Boats", exact: true }).first().click();
  await page.getByRole("link", { name: "Read a stock list" }).click();
  await page.getByLabel("Choose the file").setInputFiles(file);
  await expect(page.getByText("8 new, 1 known already, 2 to be mended")).toBeVisible();
  const rows = page.getByRole("region", { name: "Rows" });
  for (const words of ["There is no hull number", '"twenty" is no model year', '"Z" stands for no month'])
    await expect(rows).toContainText(words);
  await expectAccessible(page);
  // The heading it did not know is named, and the preview follows.
  await page.getByLabel("Model", { exact: true }).selectOption({ label: "Modell" });
  await expect(rows).toContainText("1 boat fits no template.");
  const zephyr = rows.getByRole("combobox", { name: "What zephyr starts from" });
  await zephyr.selectOption("plain cuddy cruiser");
  await expect(page.getByText("9 new, 1 known already, 2 to be mended")).toBeVisible();
  await job.done();
  await expect(rows.getByRole("row", { name: /SLW20311B626/ })).toContainText("Ferrin 20");
  await page.goto(`${store.address}/boats`);
  await expect(page.getByRole("row").nth(60)).toBeAttached();
  const head = page.getByRole("heading", { name: /^Boats \d+/ });
  const before = Number(/\d+/.exec((await head.textContent())!)![0]);
  await page.goto(`${store.address}/boats/stock`);
  await page.getByLabel("Choose the file").setInputFiles(file);
  // For all of them at once; what was chosen is said in its row.
  await page.getByLabel("What all of them start from").selectOption("plain center console");
  await page.getByRole("button", { name: "Add 9 boats" }).click();
  await expect(page.getByText("9 boats added")).toBeVisible();
  await page.getByLabel("Choose another file").setInputFiles(file);
  await expect(page.getByText("0 new, 10 known already, 2 to be mended")).toBeVisible();
  await expect(page.getByRole("button", { name: "Add 0 boats" })).toBeDisabled();
  await page.goto(`${store.address}/boats`);
  await expect(head).toHaveText(`Boats ${before + 9}`);
});

test("a topic is edited, seen in the plan, compared with the shipped one and taken back", async ({
  page,
  store,
  job,
}) => {
  await signIn(page, store, "Nessa Quill");
  await job.begin(23);
  await page.getByRole("link", { name: "Library" }).click();
  await page.getByLabel("Find a topic").fill("drain plug");
  await page
    .getByRole("region", { name: "Found topics" })
    .getByRole("button", { name: /^Drain plug: in/ })
    .click();
  await expect(page.getByText(/^Part of the walk on the/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "transom" }).first().click();
  await expect(page.getByText("The flat wall at the very back of the hull")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Edit this topic" }).click();
  await page.getByLabel("Title").fill("Plug first, always");
  const reading = page.getByRole("region", { name: "The topic as it is explained" });
  await expect(reading.getByRole("heading", { level: 2 }).last()).toHaveText("Plug first, always");
  await page.getByRole("button", { name: "Type it as text" }).click();
  await page.getByLabel("Which boats, as text").fill('{"has":"wings"}');
  await expect(page.getByRole("alert")).toContainText("No such question");
  await expect(page.getByRole("button", { name: "Save", exact: true })).toBeDisabled();
  await page.getByLabel("Which boats, as text").fill('{"has":"plug"}');
  await page.getByRole("button", { name: "Choose instead" }).click();
  await expect(page.getByLabel("Line 1", { exact: true })).toContainText("have a drain plug");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("Our wording, by Nessa Quill")).toBeVisible();

  await page.goto(`${store.address}/deliveries/d-w118`);
  await expect(page.getByRole("region", { name: "The order" })).toContainText("Plug first, always");

  await page.goto(`${store.address}/library/topic/drain-plug`);
  await page.getByRole("button", { name: "Compare with the original" }).click();
  await expect(page.getByRole("row", { name: /^Title/ })).toContainText("Plug first, always");
  await page.getByRole("button", { name: "Back to the original" }).click();
  await expect(page.getByRole("button", { name: "Compare with the original" })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo: back to our wording" }).click();
  await expect(page.getByText("Our wording, by Nessa Quill")).toBeVisible();
  await page.getByRole("button", { name: "Back to the original" }).click();
  await expect(page.getByRole("button", { name: "Undo: back to our wording" })).toBeVisible();
  await page.getByRole("link", { name: "Glossary" }).click();
  await page.getByLabel("Find a word").fill("transom");
  await page.getByRole("button", { name: "Edit: transom", exact: true }).click();
  await page.getByLabel("What it means").fill("The flat back of the hull, where the engines hang.");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("The flat back of the hull, where the engines hang.")).toBeVisible();
  await page.getByRole("button", { name: "Back to the original: transom", exact: true }).click();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(page.getByText("The flat back of the hull, where the engines hang.")).toBeVisible();
  await job.done();
  await page.goto(`${store.address}/library/topic/drain-plug`);
  await page.getByRole("button", { name: "transom" }).first().click();
  await expect(page.getByText("The flat back of the hull, where the engines hang.")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.goto(`${store.address}/deliveries/d-w118`);
  await expect(page.getByRole("region", { name: "The order" })).not.toContainText("Plug first, always");
});

test("forty-five minutes for first-timers on a pontoon: what waits is said, and a second session takes it", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-m204`);
  const planOptions = page.getByRole("region", { name: "Who, where, how long" });
  await planOptions.getByRole("button", { name: "30" }).click();
  await planOptions.getByRole("button", { name: "First boat" }).click();
  // With several people, each of whom does the musts by hand, those alone are too long: by how much, and which do not fit.
  await expect(page.getByText(/ min too long\. These must-do topics do not fit into 30 min: /)).toBeVisible();
  await planOptions.getByRole("button", { name: "45" }).click();
  await expect(planOptions.getByRole("button", { name: "45" })).toHaveAttribute("aria-pressed", "true");
  while (await planOptions.getByRole("button", { name: "One fewer" }).isEnabled()) {
    const people = Number(await planOptions.getByRole("status").textContent());
    await planOptions.getByRole("button", { name: "One fewer" }).click();
    await expect(planOptions.getByRole("status")).toHaveText(String(people - 1));
  }
  await expect(page.getByText(/too long/)).toHaveCount(0);
  const waits = page.getByRole("region", { name: "What waits" });
  await expect(waits).toContainText(/\d+ topics, .* do not fit into 45 min/);
  const total = / topics in (\d+) min of 45 min/.exec(
    (await page.locator("p", { hasText: /^It fits:/ }).textContent())!,
  );
  expect(Number(total![1])).toBeLessThanOrEqual(45);
  await waits.getByRole("button", { name: "30" }).click();
  await expect(waits).toContainText(/It takes \d+ of them/);
  // The keys were not counted yet: a walk waits for its make-ready.
  await page.getByRole("link", { name: "Go on with make-ready" }).first().click();
  await page.getByRole("button", { name: "In order: Keys, papers and lanyards counted", exact: true }).click();
  await expect(page.getByText(/^All \d+ checks are done/)).toBeVisible();
  await page.getByRole("link", { name: "The plan" }).click();
  await waits.getByRole("link", { name: "Walk the second session" }).click();
  await expect(page).toHaveURL(/session=2/);
  await page.getByRole("button", { name: "Start the walk" }).click();
  await expect(page.locator("#topic")).toBeVisible();
  const { plan } = await (await page.request.get(`${store.address}/api/deliveries/d-m204`)).json();
  await expect(
    page.getByText(
      `0 of ${plan.second.visits.flatMap(({ topics }: { topics: string[] }) => topics).length} planned topics done`,
    ),
  ).toBeVisible();
});

test("a style of the store's own is made, chosen and followed, and a school is picked", async ({ page, store }) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/library/styles`);
  await page.getByRole("button", { name: "Make a style of our own" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Helm, then home");
  await page.getByLabel("Begins at").selectOption("helm");
  await page.getByLabel("Ends at").selectOption("coupler");
  await page.getByRole("button", { name: "Save the style" }).click();
  await expect(page.getByRole("row", { name: /Helm, then home/ })).toContainText("starts at the helm");
  await page.goto(`${store.address}/library/schools`);
  await expectAccessible(page);
  await page.getByRole("radio", { name: /Muffs, engine running/ }).click();
  await expect(page.getByRole("radio", { name: /Muffs, engine running/ })).toBeChecked();
  await page.goto(`${store.address}/deliveries/d-w118`);
  await page.getByRole("radio", { name: /Helm, then home/ }).click();
  const order = page.getByRole("region", { name: "The order" });
  await expect(order.getByRole("heading", { level: 3 }).first()).toContainText("Helm");
  await expect(order.getByRole("heading", { level: 3 }).last()).toContainText("Coupler");
});
