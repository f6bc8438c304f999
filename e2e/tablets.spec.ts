import { findBoxFaults, tablets } from "./findBoxFaults.ts";
import { expect, signIn, startWalk, test } from "./store.ts";

test("the walk on the tablets that yards have: nothing overlaps, is cut or leaves its frame, and whose mark it is stands in sight", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await startWalk(page, store);
  const people = page.getByRole("radiogroup", { name: "Who the mark is for" });
  const found: string[] = [];
  // Through the first stops, past the switch panel with its many words.
  for (let topic = 0; topic < 12; topic++) {
    for (const size of tablets) {
      await page.setViewportSize(size);
      const title = await page.locator("#topic").textContent();
      found.push(...(await findBoxFaults(page)).map((fault) => `${title} at ${size.width}: ${fault}`));
      await expect(people).toBeInViewport({ ratio: 1 });
      await expect(page.getByRole("link", { name: /^Close/ })).toBeVisible();
    }
    await page.getByRole("button", { name: "Shown" }).click();
  }
  expect([...new Set(found)]).toEqual([]);
  // Upright the plan lies above the words, and still says where one stands.
  await page.setViewportSize(tablets[0]);
  await expect(page.getByRole("group", { name: /bow to the right/ })).toBeVisible();
  const words = (await page.locator("#topic").boundingBox())!;
  const plan = (await page.getByRole("complementary", { name: "Deck plan" }).boundingBox())!;
  expect(plan.y + plan.height).toBeLessThanOrEqual(words.y);
  expect(plan.width).toBeGreaterThan(700);
});
