import { expect, expectAccessible, signIn, test } from "./store.ts";

test("a topic of our own is made on the screen, waits for time, is added by a touch, and answers a question in own words", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/library`);
  await page.getByRole("link", { name: "New topic" }).click();
  const save = page.getByRole("button", { name: "Save", exact: true });
  await expect(save).toBeDisabled();
  const words = {
    Title: "Ice box: drain it after the trip",
    Show: "Open the drain and close it again.",
    "They do": "Close it, and say when they open it.",
    "What goes wrong": "It smells: the drain stayed closed.",
    "Why it matters": "Melted ice that stands for a week smells.",
  };
  for (const [label, text] of Object.entries(words)) await page.getByLabel(label, { exact: true }).fill(text);
  await page
    .getByLabel("Say", { exact: true })
    .fill("The ice box keeps your lunch cold. Open its drain at home. It is ");
  await page.getByLabel("Put a place into: Say").selectOption({ label: "where the livewell is" });
  await page.getByRole("button", { name: "Only some boats" }).click();
  await page.getByLabel("Line 1", { exact: true }).selectOption({ label: "have a livewell" });
  await page.getByLabel("Worth").fill("1");
  const preview = page.getByRole("region", { name: "The topic as it is explained" });
  await expect(preview).not.toContainText("{at:livewell}");
  await expect(page.getByRole("status", { name: "Which boats, in words" })).toHaveText("Boats that have a livewell.");
  await expectAccessible(page);
  // Another page in between loses nothing.
  await page.getByRole("link", { name: "Glossary" }).click();
  await page.getByRole("link", { name: "Topics" }).click();
  await page.getByRole("link", { name: "New topic" }).click();
  await expect(page.getByLabel("Title", { exact: true })).toHaveValue(words.Title);
  await save.click();
  await expect(page.getByRole("heading", { level: 2, name: words.Title })).toBeVisible();

  await page.goto(`${store.address}/deliveries/d-w118`);
  await page.getByRole("region", { name: "Who, where, how long" }).getByRole("button", { name: "60" }).click();
  await expect(page.getByText(/It fits:.* of 1 h(?! \d)/)).toBeVisible();
  const waits = page.getByRole("region", { name: "What waits" });
  for (const group of await waits.locator("summary").all()) await group.click();
  await waits.getByRole("button", { name: `Add ${words.Title}` }).click();
  await expect(waits.getByText(`Added: ${words.Title}.`)).toBeVisible();
  const order = page.getByRole("region", { name: "The order" });
  await expect(order).toContainText(words.Title);
  await expect(page.getByText(/It fits:/)).toBeVisible();
  await expectAccessible(page);
  await waits.getByRole("button", { name: `Do not add ${words.Title}` }).click();
  await expect(order).not.toContainText(words.Title);

  await page.getByRole("button", { name: "Start the walk" }).click();
  const title = page.locator("#topic");
  const first = await title.textContent();
  const open = page.getByRole("complementary", { name: "Still open" }).getByRole("button");
  const stops = await open.count();
  await page.keyboard.press("/");
  await page.getByLabel("Find a topic, a switch or a thing aboard").fill("why does the ice box smell");
  const answer = page
    .getByRole("region", { name: "Find in this boat" })
    .getByRole("listitem")
    .getByRole("button")
    .first();
  await expect(answer).toContainText(words.Title);
  await expect(answer).toContainText("not in this walk's plan");
  await answer.click();
  await expect(title).toHaveText(words.Title);
  await expect(open).toHaveCount(stops);
  await page.getByRole("button", { name: "Explained" }).click();
  await expect(title).toHaveText(first!);
  await expect(page.getByText(/^0 of \d+ planned topics done$/)).toBeVisible();
});
