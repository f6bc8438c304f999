import { drawSignature, expect, signIn, startWalk, test } from "./store.ts";

test("two devices on one handover: both are kept, and only one of two sign-offs counts", async ({ browser, store }) => {
  const specialist = await (await browser.newContext()).newPage();
  const owner = await (await browser.newContext()).newPage();
  await signIn(specialist, store, "Nessa Quill");
  await signIn(owner, store, "Odile Pellow");
  await startWalk(specialist, store);
  await expect(specialist.getByText(/All synced/)).toBeVisible();
  await owner.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(owner.locator("#topic")).toBeVisible();
  await specialist.getByRole("button", { name: "They did it" }).click();
  await owner.getByRole("button", { name: "Next topic" }).click();
  await owner.getByRole("button", { name: "They did it" }).click();
  for (const page of [specialist, owner]) await expect(page.getByText(/All synced/)).toBeVisible();
  await specialist.reload();
  await expect(specialist.getByText(/^2 of \d+ planned topics done/)).toBeVisible();

  await specialist.goto(`${store.address}/deliveries/d-w118/close`);
  await expect(specialist.getByRole("button", { name: /^Say why/ }).first()).toBeVisible();
  for (const reason of [...Array(60).keys()]) {
    const say = specialist.getByRole("button", { name: /^Say why/ });
    if ((await say.count()) === 0) break;
    await say.first().click();
    if (reason === 0) {
      // Markup does not get in, however it is typed.
      await specialist.getByLabel(/Another reason why/).fill("<b>owner</b> does it");
      await expect(specialist.getByLabel(/Another reason why/)).toHaveValue("bowner/b does it");
    }
    await specialist.getByRole("button", { name: "Buyer knows it, says so", exact: true }).click();
  }
  await specialist.getByRole("button", { name: /are all there/ }).click();
  const port = specialist.getByLabel("Port engine", { exact: true });
  await port.fill("a lot");
  await expect(specialist.getByText("Type hours such as 0.9")).toBeVisible();
  for (const engine of ["Port engine", "Starboard engine"]) {
    await specialist.getByLabel(engine, { exact: true }).fill("1.2");
    await specialist.getByLabel(engine, { exact: true }).press("Enter");
  }
  await drawSignature(specialist, /Buyer 1 signature/);
  await specialist.getByRole("button", { name: "Clear" }).first().click();
  await expect(specialist.getByRole("button", { name: "Save the buyer 1 signature" })).toBeDisabled();
  await drawSignature(specialist, /Buyer 1 signature/);
  await specialist.getByRole("button", { name: "Save the buyer 1 signature" }).click();
  await drawSignature(specialist, /Buyer 2 signature/);
  await specialist.getByRole("button", { name: "Save the buyer 2 signature" }).click();
  await drawSignature(specialist, /Staff signature/);
  await specialist.getByRole("button", { name: "Save the staff signature" }).click();
  const countSignatures = async () => {
    const { entries } = await (await owner.request.get(`${store.address}/api/deliveries/d-w118`)).json();
    return entries.filter(({ kind }: { kind: string }) => kind === "sign").length;
  };
  await expect.poll(countSignatures).toBe(3);

  await owner.goto(`${store.address}/deliveries/d-w118/close`);
  const seals = [specialist, owner].map((page) => page.getByRole("button", { name: "Close and seal" }));
  for (const seal of seals) await expect(seal).toBeEnabled();
  // Both at once; where the other was first by a blink, the record has taken the button's place.
  await Promise.all(seals.map((seal) => seal.click({ timeout: 5000 }).catch(() => undefined)));
  for (const page of [specialist, owner]) {
    await expect(page.getByRole("heading", { name: "Record of handover" })).toBeVisible();
  }
  const texts = await Promise.all([specialist, owner].map((page) => page.getByTestId("seal").textContent()));
  expect(texts[0]).toBe(texts[1]);
  await owner.getByLabel("A note to add to the record").fill("Rang two days later: all well.");
  await owner.getByRole("button", { name: "Add", exact: true }).click();
  await expect(owner.getByText("Rang two days later: all well.")).toBeVisible();
  await expect(owner.getByTestId("seal")).toHaveText(texts[0]!);
  await owner.goto(`${store.address}/deliveries/d-w118/walk`);
  await expect(owner.getByRole("heading", { name: "Record of handover" })).toBeVisible();
});
