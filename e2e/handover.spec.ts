import { test } from "./job.ts";
import { drawSignature, expect, expectAccessible, readPdf, signIn } from "./store.ts";

test("a whole handover: plan, walk, close, sign, record, hours", async ({ page, store, job }, info) => {
  await page.goto(store.address);
  await expect(page).toHaveURL(/sign-in/);
  await expectAccessible(page);
  await page.getByLabel("Name").fill("nessa");
  await page.getByLabel("Password").fill("wrong");
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("do not match");
  await page.getByLabel("Password").fill("slack-water");
  await page.getByRole("button", { name: "Sign in", exact: true }).click();

  const today = page.getByRole("list", { name: "Handovers today" });
  await expect(today.getByRole("listitem")).toHaveCount(3);
  await expect(today).toContainText("Starboard tell-tale weak");
  await expectAccessible(page);
  await page.getByRole("link", { name: "Open Wending 23 at 10:30 am" }).click();

  await expect(page.getByRole("heading", { level: 1 })).toContainText("SLW23118K526");
  const order = page.getByRole("region", { name: "The order" });
  await expect(order.getByRole("heading", { level: 3 }).first()).toContainText("Stern locker");
  await page.getByRole("radio", { name: /Trailer first/ }).click();
  await expect(order.getByRole("heading", { level: 3 }).first()).toContainText("Coupler");
  await expect(page.getByRole("radio", { name: /Trailer first/ })).toBeChecked();
  await expectAccessible(page);

  await page.getByRole("button", { name: "Start the walk" }).click();
  const title = page.locator("#topic");
  await expect(title).toContainText("Coupler: right ball");
  await expect(page.getByRole("note", { name: "Caution" })).toContainText("never between coupler and ball");
  await expectAccessible(page);
  const next = async (button: string) => {
    const before = await title.textContent();
    await page.getByRole("button", { name: button }).click();
    // A must is not left out in one tap.
    const why = page.getByRole("button", { name: "Sold without it" });
    if (button === "Not aboard" && (await why.isVisible())) await why.click();
    await expect(title).not.toHaveText(before!);
  };
  const marks = [
    "They did it",
    "They did it",
    "Shown",
    "Explained",
    "They did it",
    "They did it",
    "Not aboard",
    "They did it",
  ];
  for (const button of marks) await next(button);
  const later = await title.textContent();
  await page.getByRole("button", { name: "Later", exact: true }).click();
  await page.getByRole("button", { name: "out of time" }).click();
  await expect(title).not.toHaveText(later!);
  await page.getByRole("button", { name: "Snag" }).click();
  await page.getByLabel("What is wrong").fill("Cap chain is missing");
  await page.getByRole("button", { name: "Save the snag" }).click();
  await expect(page.getByText("▲ Cap chain is missing").first()).toBeVisible();
  const undone = await title.textContent();
  await next("Explained");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(title).toHaveText(undone!);
  await expect(page.getByTestId("topic-mark")).toHaveCount(0);
  const tally = page.getByText(/^\d+ of \d+ planned topics done/);
  const topics = Number(/of (\d+) planned/.exec((await tally.textContent())!)![1]);
  for (let marked = marks.length + 1; marked < topics - 1; marked++) await next("They did it");
  await expect(tally).toHaveText(new RegExp(`^\\d+ of ${topics} planned topics done`));
  await job.begin(4);
  await page.getByRole("link", { name: "Close the handover" }).click();

  await expect(page.getByRole("heading", { name: "Close the handover" })).toBeVisible();
  await expectAccessible(page);
  const seal = page.getByRole("button", { name: "Close and seal" });
  await expect(seal).toBeDisabled();
  let musts = 0;
  for (;;) {
    const say = page.getByRole("button", { name: /^Say why/ });
    if ((await say.count()) === 0) break;
    musts++;
    await say.first().click();
    await page.getByLabel(/Another reason why/).fill("Hose does not fit, adapter comes Tuesday");
    await page.getByRole("button", { name: "Save", exact: true }).first().click();
  }
  expect(musts).toBeGreaterThanOrEqual(1);
  await page.getByRole("button", { name: "One less: Ignition keys with float" }).click();
  await page.getByRole("button", { name: /are all there/ }).click();
  await expect(page.getByRole("listitem").getByText("▲ 1 short")).toBeVisible();
  for (const engine of ["Port engine", "Starboard engine"]) {
    await page.getByLabel(engine, { exact: true }).fill("0,8");
    await page.getByLabel(engine, { exact: true }).press("Enter");
  }
  await expect(page.getByText("Read: 0.8 h")).toHaveCount(2);
  await page.getByRole("button", { name: "Does not sign" }).last().click();
  await page.getByLabel("Why Lindy Okonjo-Bell does not sign").fill("Only Rafe is on the papers");
  await page.getByRole("button", { name: "Save the reason" }).click();
  await drawSignature(page, /Buyer 1 signature/);
  await page.getByRole("button", { name: "Save the buyer 1 signature" }).click();
  await page.getByLabel("Name of the witness").fill("Odile Pellow");
  await drawSignature(page, /Witness signature/);
  await page.getByRole("button", { name: "Save the witness signature" }).click();
  await drawSignature(page, /Staff signature/);
  await page.getByRole("button", { name: "Save the staff signature" }).click();
  await expect(seal).toBeEnabled();
  await seal.click();

  await expect(page.getByRole("heading", { name: "Record of handover" })).toBeVisible();
  await expect(page.getByTestId("seal")).toHaveText(/^[0-9a-f]{64}$/);
  await job.done();
  const sealText = await page.getByTestId("seal").textContent();
  await expect(page.getByRole("region", { name: "Owed to the buyer" })).toContainText("Cap chain is missing");
  await expect(page.getByRole("region", { name: "Owed to the buyer" })).toContainText(
    "Ignition keys with float: 1 short",
  );
  await expectAccessible(page);
  const pdf = await page.request.get(`${store.address}/api/deliveries/d-w118/record.pdf?paper=a4`);
  expect(pdf.headers()["content-type"]).toContain("application/pdf");
  const text = readPdf(await pdf.body(), info.outputPath("record.pdf"));
  for (const words of [
    "Wending 23",
    "SLW23118K526",
    "Rafe Okonjo-Bell",
    "Nessa Quill",
    "Cap chain is missing",
    sealText!,
  ])
    expect(text).toContain(words);

  // The record taken away is what was sealed; one word changed in it is found.
  const bundle = await (await page.request.get(`${store.address}/api/deliveries/d-w118/bundle.json`)).json();
  await page.getByRole("link", { name: "Verify a file" }).click();
  const verify = async (name: string, content: unknown) =>
    page.getByLabel("Choose the file").setInputFiles({
      name,
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify(content)),
    });
  await verify("handover.json", bundle);
  await expect(page.getByText("Intact, and signed by the store that sealed it.")).toBeVisible();
  await expectAccessible(page);
  const values = Object.values(bundle.content.entries) as { value: { id: string; kind: string; note: string } }[];
  const snag = values.find(({ value }) => value.kind === "snag")!.value;
  snag.note = "All is well";
  await verify("changed.json", bundle);
  await expect(page.getByText(`entry ${snag.id} (snag)`)).toBeVisible();

  await page.goto(`${store.address}/boats/w118`);
  const due = page.getByTestId("due-port-first-service");
  await expect(due).toContainText("20");
  const before = await due.textContent();
  await expect(page.getByText("At most 3,000 rpm").first()).toBeVisible();
  await page.getByLabel("Hours on the meter").fill("14.5");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("14.5 h is a lot");
  await page.getByRole("button", { name: "It is right, much was run" }).click();
  await expect(due).not.toHaveText(before!);
  await expect(page.getByText("Break-in is over").first()).toBeVisible();
  await page.getByLabel("Hours on the meter").fill("9");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("14.5 h was read on");
  await page.getByRole("button", { name: "The earlier reading was a wrong entry" }).click();
  await expect(page.getByText("by phone: an earlier reading was a wrong entry")).toBeVisible();
  await expectAccessible(page);
});

test("the walk with the keyboard alone", async ({ page, store, job }) => {
  await signIn(page, store, "Nessa Quill");
  await page.goto(`${store.address}/deliveries/d-w118`);
  await expect(page.getByRole("region", { name: "The order" })).toBeVisible();
  await job.begin(8);
  await page.keyboard.press("w");
  const title = page.locator("#topic");
  const seen: string[] = [];
  const press = async (key: string) => {
    const before = (await title.textContent())!;
    seen.push(before);
    await page.keyboard.press(key);
    await expect(title).not.toHaveText(before);
  };
  await expect(title).toBeVisible();
  for (const key of ["1", "2", "3", "5", "3"]) await press(key);
  await page.keyboard.press("4");
  await page.getByLabel("Why later").waitFor();
  await page.keyboard.type("on the water");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Why later")).toHaveCount(0);
  await page.keyboard.press("s");
  await page.getByLabel("What is wrong").waitFor();
  await page.keyboard.type("Lamp does not light");
  await page.keyboard.press("Enter");
  await expect(page.getByText("▲ Lamp does not light").first()).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByText("▲ Lamp does not light")).toHaveCount(0);
  await job.done();
  await page.keyboard.press("u");
  await expect(page.getByTestId("topic-mark")).toHaveCount(0);
  await press("ArrowLeft");
  await press("ArrowRight");
  // A presenter's remote: on and back; its screen key marks what the topic aims at, and twice takes that back.
  await press("PageDown");
  await press("PageUp");
  const aimedAt = (await title.textContent())!;
  await press("b");
  await page.keyboard.press("b");
  await expect(title).toHaveText(aimedAt);
  await expect(page.getByTestId("topic-mark")).toHaveCount(0);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("Remote: next topic");
  await expect(page.getByRole("dialog")).toContainText("They did it");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const ring = page.getByRole("button", { name: /^Helm, stop/ });
  await ring.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/Stop \d+ · Helm/)).toBeVisible();
  await page.keyboard.press("c");
  await expect(page.getByRole("heading", { name: "Close the handover" })).toBeVisible();
});
