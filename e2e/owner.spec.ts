import { openSlowLine } from "./slowLine.ts";
import { expect, expectAccessible, readPdf, signIn, test, tinyPng } from "./store.ts";

test("an absent buyer goes through the walk on their own page, asks, looks the boat over; the yard answers", async ({
  page,
  browser,
  store,
}, info) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-m204`);
  await page.getByRole("button", { name: "Make it with the walk" }).click();
  const address = (await page.getByTestId("owner-address").textContent())!;
  expect(address).toMatch(/\/o\/[\w-]{22}$/);

  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(address);
  await expect(phone.getByRole("heading", { level: 1, name: "Millrace 24" })).toBeVisible();
  await expectAccessible(phone);
  await phone.getByRole("link", { name: "1 Start" }).click();
  await expect(phone.getByRole("note", { name: "Caution" })).toContainText("Never start without water");
  await expect(phone.getByText("Battery switches as below")).toBeVisible();
  await expectAccessible(phone);
  await phone.getByRole("link", { name: "All cards" }).click();
  await phone.getByRole("link", { name: "Begin the walk" }).click();
  await expect(phone.getByText(/^1 of \d+, 0 done/)).toBeVisible();
  await phone.getByRole("button", { name: "Did it myself" }).click();
  await expect(phone.getByText(/^2 of \d+, 1 done/)).toBeVisible();
  await phone.getByRole("button", { name: "Understood" }).click();
  await expect(phone.getByText(/, 2 done/)).toBeVisible();
  await phone.getByLabel("Your question").fill("Which switch is the house one?");
  await phone.getByRole("button", { name: "Ask", exact: true }).click();
  await expect(phone.getByText("They will answer.")).toBeVisible();
  await phone.getByRole("link", { name: "All cards" }).click();
  await phone.getByRole("link", { name: "The boat has arrived" }).click();
  await phone.getByRole("button", { name: /^Damaged: Hull, port side/ }).click();
  await phone.getByLabel(/^What is damaged/).fill("Scratch below the rail");
  await phone.getByRole("button", { name: "Save", exact: true }).click();
  await expect(phone.getByText("▲ damaged: Scratch below the rail")).toBeVisible();
  await phone.locator('input[type="file"]').setInputFiles({ name: "s.png", mimeType: "image/png", buffer: tinyPng });
  await expect(phone.getByRole("img", { name: /Hull, port side/ })).toBeVisible();
  await phone.getByRole("button", { name: /^In order: Trailer/ }).click();
  await expect(phone.getByText("✓ in order")).toBeVisible();

  // The question comes back to Today; the answer goes out on their page.
  await page.goto(store.address);
  await expect(page.getByText("Which switch is the house one?")).toBeVisible();
  await page.goto(`${store.address}/aftercare/owed`);
  await page.getByRole("button", { name: /^Answer: .*house one/ }).click();
  await page.getByLabel("Your answer (they see it)").fill("There is one switch for both on your boat.");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("house one?")).toHaveCount(0);
  await phone.goto(`${address}?view=walk`);
  await phone.getByRole("button", { name: "Before" }).click({ trial: true });
  const pdf = await page.request.get(`${store.address}/api/deliveries/d-m204/record.pdf`);
  const text = readPdf(await pdf.body(), info.outputPath("remote.pdf"));
  for (const words of ["Remote handover", "without anybody of the store beside", "Scratch below the rail"])
    expect(text).toContain(words);
  const pack = await phone.request.get(`${address.replace("/o/", "/api/owner/")}/pack.pdf?paper=a4`);
  expect(readPdf(await pack.body(), info.outputPath("pack.pdf"))).toContain("It will not start");

  // Ended, the address opens nothing any more.
  await page.goto(`${store.address}/deliveries/d-m204`);
  await page.getByRole("button", { name: "End it" }).click();
  await page.getByRole("button", { name: /^End it for / }).click();
  await expect(page.getByRole("button", { name: "Make their page" })).toBeVisible();
  await phone.goto(address);
  await expect(phone.getByRole("alert")).toContainText("This address has ended");
});

test.describe("with the app kept on the device", () => {
  test.use({ serviceWorkers: "allow" });

  test("what an owner has done stands on their page, however slow the line", async ({ page, browser, store }) => {
    await signIn(page, store, "Nessa Quill");
    await page.goto(`${store.address}/deliveries/d-m204`);
    await page.getByRole("button", { name: "Make it with the walk" }).click();
    const address = new URL((await page.getByTestId("owner-address").textContent())!);
    const line = await openSlowLine(store.address);
    const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    const walk = `${line.address}${address.pathname}?view=walk`;
    await phone.goto(walk);
    await phone.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 90_000 });
    await phone.goto(walk);
    await expect(phone.getByText(/, 0 done/)).toBeVisible();
    // Longer than a page waits before it shows what it read last: that was read before the mark.
    line.slow(/\/api\/owner\/[^/]+$/, 6000);
    await phone.getByRole("button", { name: "Understood" }).click();
    await expect(phone.getByText(/, 1 done/)).toBeVisible();
    line.close();
  });
});
