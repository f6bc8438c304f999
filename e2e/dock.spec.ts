import { expect, expectAccessible, signIn, test } from "./store.ts";

test("marks made without signal are kept, shown as kept, and sent once when it returns", async ({
  page,
  context,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(page.locator("#topic")).toBeVisible();
  await expect(page.getByText(/all sent/)).toBeVisible();
  await context.setOffline(true);
  for (let i = 1; i <= 5; i++) {
    await page.getByRole("button", { name: "They did it" }).click();
    await expect(page.getByText(new RegExp(`^${i} of \\d+ topics`))).toBeVisible();
  }
  await expect(page.getByText("no signal · 5 kept on this tablet")).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/all sent/)).toBeVisible({ timeout: 20_000 });
  await page.reload();
  await expect(page.getByText(/^5 of \d+ topics/)).toBeVisible();
  const { entries } = await (await page.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  const marks = entries.filter((entry: { kind: string }) => entry.kind === "mark");
  expect(marks).toHaveLength(5);
});

test("a mark for one of two people stays on the topic and says who did it", async ({ page, store }) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w118/walk`);
  const title = await page.locator("#topic").textContent();
  await page.getByRole("button", { name: "Next topic" }).click();
  await expect(page.locator("#topic")).not.toHaveText(title!);
  await page.getByRole("button", { name: "Topic before" }).click();
  await expect(page.locator("#topic")).toHaveText(title!);
  await page.getByRole("radio", { name: "Lindy" }).click();
  await page.getByRole("button", { name: "They did it" }).click();
  await expect(page.locator("#topic")).toHaveText(title!);
  await expect(page.getByTestId("topic-mark")).toContainText("did it");
  await expect(page.getByRole("radio", { name: "All present" })).toBeChecked();
});

test("the walk works at 390 wide, by thumb, and the deck plan opens over it", async ({ page, store }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w118/walk`);
  for (const name of ["Told", "Shown", "They did it", "Later", "Snag", "Not aboard", "Undo"]) {
    const box = (await page.getByRole("button", { name }).boundingBox())!;
    expect(box.height, name).toBeGreaterThanOrEqual(64);
    expect(box.x, name).toBeGreaterThanOrEqual(0);
    expect(box.x + box.width, name).toBeLessThanOrEqual(390);
  }
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("button", { name: "Deck plan" }).click();
  await page.getByRole("button", { name: /^Helm, stop/ }).click();
  await expect(page.getByText(/Stop \d+ · Helm/)).toBeVisible();
  await expectAccessible(page);
});

test("make-ready is ticked by the technician and seen on Today; a long name fits", async ({ page, store }) => {
  await signIn(page, store, "Tobin Ashgrove");
  await expect(page.getByText("Marguerite-Philippa Van der Oosterhuizen-Castellanos")).toBeVisible();
  await page.getByRole("link", { name: "Open Wending 23 at 14:00" }).click();
  const box = page.getByRole("checkbox", { name: /Trailer lights/ });
  await expect(box).not.toBeChecked();
  await box.click();
  await expect(box).toBeChecked();
  await expect(page.getByText("6 of 8")).toBeVisible();
  await expect(page.getByRole("radio", { name: /Sweep/ })).toBeDisabled();
  await page.getByRole("link", { name: "boat's page" }).click();
  await page.getByRole("button", { name: /Settle: Starboard tell-tale weak/ }).click();
  await page.getByLabel("How it was settled").fill("Outlet cleared, ran it again");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("Nothing is owed.")).toBeVisible();
  await page.getByRole("link", { name: "Today" }).click();
  await expect(page.getByText("6 of 8 make-ready")).toBeVisible();
  await expect(page.getByText("stops the handover")).toHaveCount(0);
});

test("boats can be listed and found, a service recorded, and night is remembered", async ({ page, store }) => {
  await signIn(page, store, "Ines Marr");
  await page.getByRole("link", { name: "Boats" }).click();
  await expect(page.getByRole("row")).toHaveCount(11);
  await expectAccessible(page);
  await page.keyboard.press("/");
  await page.getByLabel("Find a boat or a buyer").fill("varnholt");
  await page.getByRole("option", { name: /Ilse Varnholt/ }).click();
  await expect(page.getByText("▲ overdue").first()).toBeVisible();
  await page.getByRole("button", { name: "Record First service, Port engine, as done today" }).click();
  await expect(page.getByRole("row", { name: /Port engine/ }).first()).toContainText("done");
  await page.getByRole("button", { name: /Ines Marr, service: menu/ }).click();
  await page.getByRole("button", { name: "Night sheet" }).click();
  await expectAccessible(page);
  await page.reload();
  await expect(page.locator("html")).toHaveClass("night");
  await page.getByRole("button", { name: /Ines Marr, service: menu/ }).click();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/sign-in/);
  await page.goto(store.address);
  await expect(page).toHaveURL(/sign-in/);
});

test("an unknown page and an unknown boat say so and lead back", async ({ page, store }) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/nowhere`);
  await expect(page.getByRole("heading", { name: "There is no page here" })).toBeVisible();
  await page.goto(`${store.address}/boats/none`);
  await expect(page.getByRole("alert")).toContainText('no boat "none"');
});
