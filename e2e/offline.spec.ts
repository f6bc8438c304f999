import { expect, signIn, test } from "./store.ts";

test("a walk that was aboard is opened, walked and closed on without signal, through a reload and a closed tab", async ({
  page,
  context,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await expect(page.getByText("aboard this device").first()).toBeVisible({ timeout: 20_000 });
  await context.setOffline(true);
  await page.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(page.locator("#topic")).toBeVisible();
  await page.getByRole("button", { name: "They did it" }).click();
  await page.getByRole("button", { name: "Told" }).click();
  await expect(page.getByText(/^2 of \d+ topics/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/^2 of \d+ topics/)).toBeVisible();
  await expect(page.getByText(/3 kept on this tablet/)).toBeVisible();
  await page.close();

  const again = await context.newPage();
  await again.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(again.getByText(/^2 of \d+ topics/)).toBeVisible();
  await again.getByRole("button", { name: "Shown" }).click();
  await again.getByRole("link", { name: /^Close/ }).click();
  await expect(again.getByRole("heading", { name: "Close the handover" })).toBeVisible();
  await context.setOffline(false);
  await expect(again.getByText(/all sent/)).toBeVisible({ timeout: 30_000 });
  const { entries } = await (await again.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  const marks = entries.filter((entry: { kind: string }) => entry.kind === "mark");
  expect(marks).toHaveLength(3);
  expect(new Set(entries.map(({ id }: { id: string }) => id)).size).toBe(entries.length);
});
