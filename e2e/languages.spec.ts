import { expect, expectAccessible, readPdf, signIn, startWalk, test } from "./store.ts";

test("a buyer who reads Spanish: the walk in their words, what was spoken kept, their page and pack in Spanish", async ({
  page,
  store,
  browser,
}, testInfo) => {
  await signIn(page, store, "Odile");
  await page.goto(`${store.address}/library/languages?part=places`);
  await page.getByRole("radio", { name: "Español" }).click();
  const place = page.getByRole("textbox", { name: "Español: Under the floor hatch", exact: true });
  await place.fill("bajo la trampilla, con un gancho");
  await page.getByRole("listitem").filter({ has: place }).getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Our own words.")).toBeVisible();
  await expectAccessible(page);

  await page.goto(`${store.address}/deliveries/d-w118`);
  await page.getByRole("button", { name: "Español" }).click();
  const readDelivery = async () => (await page.request.get(`${store.address}/api/deliveries/d-w118`)).json();
  await expect.poll(async () => (await readDelivery()).planOptions.language).toBe("es");
  await startWalk(page, store);
  const title = page.locator("#topic");
  await expect(title).toContainText("Batter");
  if (!(await title.textContent())!.startsWith("Battery switches"))
    await page.getByRole("button", { name: /^They did it/ }).click();
  await expect(title).toContainText("Battery switches");
  await page.getByRole("button", { name: "Español" }).click();
  await expect(title).toContainText("Interruptores de batería");
  await expectAccessible(page);
  await page.getByRole("button", { name: /^They did it/ }).click();
  await expect(title).not.toContainText("Interruptores de batería");
  // The next one nobody translated: it is told as it is written, and says so by being English.
  await expect(page.getByRole("button", { name: "Español" })).toBeHidden();
  await expect(page.getByText(/^[12] of \d+ planned topics done/)).toBeVisible();

  const readMark = async () => {
    const { entries } = await readDelivery();
    return entries.findLast(({ kind }: { kind: string }) => kind === "mark")?.language;
  };
  await expect.poll(readMark).toBe("es");

  const made = await page.request.post(`${store.address}/api/deliveries/d-w118/link`, {
    headers: { origin: store.address },
    data: { isRemote: false, send: false },
  });
  const { token } = await made.json();
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(`${store.address}/o/${token}`);
  await expect(phone.getByRole("heading", { name: "Lo que le debemos" })).toBeVisible();
  await expect(phone.getByPlaceholder(/¿cómo lo enjuago\?/)).toBeVisible();
  await phone.getByRole("link", { name: /Arrancar/ }).click();
  await expect(phone.getByText(/Tapón de drenaje puesto, apretado a mano/)).toBeVisible();
  await expectAccessible(phone);
  await phone.goto(`${store.address}/o/${token}?view=finder`);
  await phone.getByLabel("¿Qué no funciona?", { exact: true }).fill("bocina");
  await phone.getByRole("button", { name: "No funciona: La bocina suena" }).click();
  await expect(phone.getByRole("heading", { name: "Lo que puede ser" })).toBeVisible();
  await phone.getByRole("button", { name: "No", exact: true }).first().click();
  await expect(phone.getByText(/La bocina suena: no/)).toBeVisible();
  await expectAccessible(phone);
  await phone.getByRole("button", { name: "Decir al taller lo que encontró" }).click();
  await expect(phone.getByText("El taller tiene lo que encontró. Está entre sus preguntas.")).toBeVisible();
  // The yard reads it in its own language.
  const readAsk = async () =>
    (await readDelivery()).entries.find(({ kind }: { kind: string }) => kind === "ask")?.note as string | undefined;
  await expect.poll(readAsk).toMatch(/^It does not work\. Horn sounds: no\./);
  await phone.goto(`${store.address}/o/${token}?view=power`);
  await expect(phone.getByRole("heading", { name: /Dejarlo así/ })).toBeVisible();
  await phone.getByRole("link", { name: "Todas las fichas" }).click();
  await phone.getByRole("link", { name: /Arrancar/ }).click();
  await phone.getByRole("button", { name: "English" }).click();
  await expect(phone.getByText(/Drain plug in, hand-tight/)).toBeVisible();
  await phone.close();

  const pack = await page.request.get(`${store.address}/api/deliveries/d-w118/pack.pdf?paper=a4`);
  const words = readPdf(await pack.body(), testInfo.outputPath("pack.pdf"));
  expect(words).toContain("Dónde está");
  expect(words).toContain("Antes de dejar el barco");
  expect(words).not.toContain("Before you leave");
});
