import { expect, expectAccessible, signIn, test } from "./store.ts";

test("a dock call from whose boat it is to the cause; another is gone on with", async ({ page, store }) => {
  await signIn(page, store, "Ines Marr");
  await page.getByRole("link", { name: "Call list" }).click();
  await page.getByRole("link", { name: "Calls", exact: true }).click();
  await expectAccessible(page);
  await page.getByLabel("What do they say?").fill("beeps but won't start");
  await page.getByLabel("Whose boat is it?").fill("hollick");
  await page.getByRole("list", { name: "Boats found" }).getByRole("link", { name: /23097/ }).click();
  await page.getByRole("button", { name: "Does not work: Port engine starts" }).click();
  await expect(page.getByText("Look at the red clip under the throttle.")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "No", exact: true }).first().click();
  await expect(page.getByRole("heading", { name: "Kill lanyard out or half in" })).toBeVisible();
  await page.getByRole("button", { name: "Log the call" }).click();
  await expect(page.getByText("The call is logged with the boat's handover")).toBeVisible();
  await expect(page.getByText("All synced")).toBeVisible();
  await page.getByRole("link", { name: "Calls", exact: true }).click();
  const closed = page.getByRole("list", { name: "What it was" });
  await expect(closed.getByRole("listitem").first()).toContainText("Cause: Kill lanyard out or half in");
  const open = page.getByRole("list", { name: "Open calls" });
  const calls = await open.getByRole("listitem").count();
  await open.getByRole("link", { name: /^Go on: Port engine starts/ }).click();
  await expect(page.getByRole("button", { name: "Take back: Kill lanyard out or half in, good" })).toBeVisible();
  await page.getByRole("button", { name: "No", exact: true }).first().click();
  await page.getByRole("button", { name: "Log the call" }).click();
  await expect(page.getByText("All synced")).toBeVisible();
  await page.getByRole("link", { name: "Calls", exact: true }).click();
  await expect(open.getByRole("listitem")).toHaveCount(calls - 1);
  const { deliveries } = await (await page.request.get(`${store.address}/api/boats/w097`)).json();
  const { entries } = await (await page.request.get(`${store.address}/api/deliveries/${deliveries[0].id}`)).json();
  const call = entries.find(
    (each: { kind: string; topic: string }) => each.kind === "call" && each.topic === "lanyard",
  );
  expect(call.fault).toMatchObject({ cause: { kind: "lanyard" }, goesOn: null });
  expect(entries.at(-1).fault.goesOn).not.toBeNull();
  expect(call.note).toContain("Kill lanyard out or half in: at fault");
});

test.describe("with the app kept on the device", () => {
  test.use({ serviceWorkers: "allow" });

  test("leaving the boat is checked without signal, from the walk's own boat: what drains, turned off one by one", async ({
    page,
    store,
  }) => {
    await signIn(page, store, "Nessa Quill");
    await expect(page.getByText("saved on this tablet").first()).toBeVisible({ timeout: 20_000 });
    // Opened for the first time without signal.
    await page.context().setOffline(true);
    await page.goto(`${store.address}/deliveries/d-w118/power`);
    await page.getByRole("button", { name: "As it is often left" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("House battery: too low by");
    await expectAccessible(page);
    const leaving = page.getByRole("region", { name: /^Leaving the boat like this/ });
    const offs = leaving.getByRole("button");
    while ((await offs.count()) > 0) await offs.first().click();
    await expect(leaving).toContainText("stays live: leave it");
    await page.getByRole("button", { name: /^House: On/ }).click();
    await expect(page.getByText("stays live with everything off").first()).toBeVisible();
    await page.context().setOffline(false);
  });
});

test("an owner on a phone looks for the fault, and the yard is told what was found", async ({
  page,
  browser,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  const answer = await page.request.post(`${store.address}/api/deliveries/d-w097/link`, {
    headers: { origin: store.address },
    data: { isRemote: false, send: false },
  });
  const { token } = await answer.json();
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(`${store.address}/o/${token}`);
  await phone.getByRole("link", { name: "It does not work" }).click();
  await phone.getByLabel("What does not work?", { exact: true }).fill("no water at the tap");
  await phone.getByRole("button", { name: "Does not work: Fresh water runs" }).click();
  await expect(phone.getByRole("heading", { name: "What it may be" })).toBeVisible();
  await expectAccessible(phone);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.getByRole("button", { name: "No", exact: true }).first().click();
  await phone.getByRole("button", { name: "Tell the yard what you found" }).click();
  await expect(phone.getByText("The yard has what you found.")).toBeVisible();
  await page.goto(`${store.address}/boats/w097`);
  await expect(page.getByText(/It does not work. Fresh water runs: no/).first()).toBeVisible();
});
