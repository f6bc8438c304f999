import { expect, expectAccessible, readPdf, signIn, startWalk, test } from "./store.ts";

test("a tow check that fails, stands on Today, and passes with the right ball; a ramp learned from one launch", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/boats/w118/tow`);
  await page.getByLabel("Car", { exact: true }).fill("Grey estate");
  const save = async (fields: Record<string, string>) => {
    for (const [label, value] of Object.entries(fields)) {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press("Tab");
    }
    await page.getByRole("button", { name: "Save the car" }).click();
  };
  await save({ "Ball, across": "1 7/8" });
  const verdict = page.getByRole("heading", { level: 1 });
  await expect(verdict).toHaveText("▲ Not with Grey estate: ball and coupler.");
  await expect(page.getByText("Saved.", { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.goto(store.address);
  await expect(page.getByRole("region", { name: "Cannot be towed home yet" })).toContainText(
    "Grey estate: ball and coupler",
  );
  await page.getByRole("region", { name: "Cannot be towed home yet" }).getByRole("link").click();
  await page.getByText("The car: Grey estate").click();
  await save({
    "Ball, across": "2 5/16",
    "Pins of its socket": "7",
    "The car itself, with its driver": "6200",
    "People and luggage beside": "300",
    "May carry": "1900",
    "May tow, braked": "9000",
    "May bear on the ball": "900",
    "Car and trailer together": "15000",
    "The hitch receiver may take": "9500",
    "The ball may take": "8000",
  });
  await expect(verdict).toHaveText(/^It may go on the road/);
  await page.goto(store.address);
  await expect(page.getByRole("list", { name: "Handovers today" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Cannot be towed home yet" })).toHaveCount(0);

  await page.goto(`${store.address}/boats/w118/ramp`);
  const before = await verdict.textContent();
  await page.getByRole("button", { name: "It was somewhere else" }).click();
  await page.getByLabel("Top of the fender when the stern floated", { exact: true }).fill("14");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText(/Written down/)).toBeVisible();
  await expect(verdict).not.toHaveText(before!);
  await page.reload();
  await expect(page.getByText(/^Last: .*14 in under, Nessa Quill/)).toBeVisible();
});

test.describe("with the app kept on the device", () => {
  test.use({ serviceWorkers: "allow" });

  test("a launch by two phones: each their own part, passed by a code without signal, merged when it returns", async ({
    page,
    context,
    browser,
    store,
  }) => {
    await signIn(page, store, "Nessa Quill");
    await startWalk(page, store);
    const helper = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await signIn(helper, store, "Tobin Ashgrove");
    const address = `${store.address}/deliveries/d-w118/steps/launch`;
    await helper.goto(`${address}?role=helper`);
    await expect(helper.getByRole("heading", { level: 1, name: "Launch" })).toBeVisible();
    await expectAccessible(helper);
    await expect(helper.getByText("saved on this tablet")).toHaveCount(0);
    await page.goto(address);
    await expect(page.getByText(/^0 of \d+ steps done/)).toBeVisible();
    await expect(page.getByLabel("I am the")).toHaveValue("skipper");

    // With signal, each sees the other's steps.
    await helper.getByRole("button", { name: "Done", exact: true }).click();
    await expect(page.getByText(/^1 of \d+ steps done/)).toBeVisible();

    // Without: the skipper goes on, and the code carries it over.
    await context.setOffline(true);
    const next = page.getByRole("region", { name: "Next step" });
    for (;;) {
      const said = await next.getByRole("heading", { level: 2 }).textContent();
      if (/^Look at the ramp/.test(said!)) break;
      await next.getByRole("button", { name: "Done", exact: true }).click();
      await expect(next.getByRole("heading", { level: 2 })).not.toHaveText(said!);
    }
    await page.getByRole("button", { name: "Pass it to the other phone" }).click();
    const code = (await page.getByTestId("pass-address").textContent())!;
    expect(code).toContain("role=helper#launch-");
    const done = Number(/^(\d+) of/.exec((await page.getByText(/^\d+ of \d+ steps done/).textContent())!)![1]);
    await helper.goto("about:blank");
    await helper.goto(code);
    await expect(helper.getByText(`The other phone passed ${done} steps on to this one.`)).toBeVisible();
    await expect(helper.getByText(new RegExp(`^${done} of`))).toBeVisible();
    for (let i = 0; i < 2; i++) await helper.getByRole("button", { name: "Done", exact: true }).click();
    // The car is not in the water yet: the helper waits, or says that it was seen.
    for (;;) {
      const said = await helper
        .getByRole("region", { name: "Next step" })
        .getByRole("heading", { level: 2 })
        .textContent();
      if (/^The car stands/.test(said!)) break;
      await helper.getByRole("button", { name: "Done", exact: true }).click();
      await expect(helper.getByRole("region", { name: "Next step" }).getByRole("heading", { level: 2 })).not.toHaveText(
        said!,
      );
    }
    await expect(helper.getByText("Wait. The skipper has this first:")).toBeVisible();
    await expect(helper.getByRole("button", { name: "Done", exact: true })).toBeDisabled();

    await context.setOffline(false);
    await page.evaluate(() => window.dispatchEvent(new Event("online")));
    const count = async (on: typeof page) =>
      /^\d+/.exec((await on.getByText(/^\d+ of \d+ steps done/).textContent())!)![0];
    await expect.poll(async () => (await count(page)) === (await count(helper))).toBe(true);
    await next.getByRole("button", { name: "Done", exact: true }).click();
    await expect(helper.getByText(/^Look at the ramp/)).toHaveCount(1);
    await helper.reload();
    await expect.poll(async () => (await count(page)) === (await count(helper))).toBe(true);
  });
});

test("a first trip from a file, stopped by wind; its float plan; and the officer's check within seconds", async ({
  page,
  store,
}, info) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w097/trip`);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Not a go yet: enter how fast it cruises");
  const points = [
    [45.2, -93.4, "Dock"],
    [45.3, -93.4, "North point"],
    [45.35, -93.3, "Sallow island"],
  ].map(([lat, lon, name]) => `<rtept lat="${lat}" lon="${lon}"><name>${name}</name></rtept>`);
  const gpx = `<gpx version="1.1"><rte><name>Round the island</name>${points.join("")}</rte></gpx>`;
  const choose = async (name: string, text: string) =>
    page
      .locator('input[accept=".gpx"]')
      .setInputFiles({ name, mimeType: "application/gpx+xml", buffer: Buffer.from(text) });
  await choose("broken.gpx", "<gpx><rte>");
  await expect(page.getByRole("alert")).toContainText("This is no GPX file");
  await choose("island.gpx", gpx);
  await expect(page.getByText("3 points read, 2 legs.")).toBeVisible();
  await page.getByLabel("Cruising speed", { exact: true }).fill("22");
  await page.getByLabel("Burn at that speed, all engines", { exact: true }).fill("18");
  const verdict = page.getByRole("region", { name: "Go or no go" });
  await expect(verdict).toContainText("Wind not checked");
  await page.getByLabel(/^Time and knots/).fill("09:00 6\n10:00 9\n13:00 24\n22:00 24");
  await page.getByRole("button", { name: "Take this wind" }).click();
  await expect(verdict).toContainText("▲ No go");
  await expect(verdict).toContainText(/Wind: it reaches 15 kn at 11:12\sam/);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save the trip" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();
  const link = page.getByRole("link", { name: "Float plan as PDF" });
  const pdf = await page.request.get(store.address + (await link.getAttribute("href")));
  const text = readPdf(await pdf.body(), info.outputPath("plan.pdf"));
  for (const said of [
    "Round the island",
    "Sallow island",
    "marine rescue",
    "No go",
    "Say this before you leave the dock",
  ])
    expect(text).toContain(said);
  await page.reload();
  await expect(verdict).toContainText("▲ No go");
  await expect(page.getByLabel("Name of the trip")).toHaveValue("Round the island");

  await page.getByRole("link", { name: "Show it to an officer" }).click();
  const asked = page.getByRole("list", { name: "What is asked for" }).getByRole("button");
  await expect(asked.first()).toBeVisible();
  const begunMs = performance.now();
  const names = await asked.allTextContents();
  for (const name of names) {
    await page.getByRole("button", { name, exact: true }).click();
    await expect(page.getByRole("status").getByRole("heading", { name })).toBeVisible();
    await expect(page.getByRole("status").getByRole("img", { name: /^Deck plan/ })).toBeVisible();
  }
  // A few seconds a thing, by a slow machine: an officer does not wait.
  expect((performance.now() - begunMs) / names.length).toBeLessThan(5_000);
});
