import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { readZip } from "../server/zip.ts";
import { expect, signIn, test } from "./store.ts";

test("a buyer takes along all that is held of them, is forgotten, and the whole store still verifies", async ({
  page,
  store,
}, info) => {
  await signIn(page, store, "Odile Pellow");
  await page.goto(`${store.address}/deliveries/d-w112/record`);
  const link = page.getByRole("link", { name: /^What is held of / });
  const name = (await link.textContent())!.replace("What is held of ", "");
  const bundle = await (await page.request.get(`${store.address}/api/deliveries/d-w112/bundle.json`)).text();
  expect(bundle).toContain(name);
  await link.click();
  await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
  const saving = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download all of it" }).click();
  const files = await readZip(readFileSync(await (await saving).path()), () => true);
  expect(JSON.parse(files.get("buyer.json")!.toString("utf8"))).toMatchObject({ format: "ravik.buyer/1", name });

  await page.getByLabel("Why, without their name").fill("Asked in writing");
  await page.getByRole("button", { name: /^Forget/ }).click();
  await expect(page.getByRole("alert")).toContainText(`${name} is struck for good`);
  await page.getByRole("button", { name: "Forget them for good" }).click();
  await expect(page.getByRole("heading", { name: `${name} is forgotten` })).toBeVisible();

  // The record says so, nobody finds them, and whatever was sealed is still what was sealed.
  await page.goto(`${store.address}/deliveries/d-w112/record`);
  await expect(page.getByText(/Asked in writing/)).toBeVisible();
  await expect(page.getByText(name)).toHaveCount(0);
  await page.keyboard.press("/");
  await page.getByLabel("Find a boat or a buyer").fill(name);
  await expect(page.getByText(/^No boat and no buyer has/)).toBeVisible();
  const after = await (await page.request.get(`${store.address}/api/deliveries/d-w112/bundle.json`)).text();
  expect(after).not.toContain(name);
  for (const [file, text] of [
    ["before.json", bundle],
    ["after.json", after],
  ] as const) {
    writeFileSync(info.outputPath(file), text);
    const said = execFileSync(process.execPath, ["dist/server/verify.js", info.outputPath(file)], { encoding: "utf8" });
    expect(said).toContain("intact");
  }
  const whole = execFileSync(process.execPath, ["dist/server/verify.js", "--store", store.dataFolder], {
    encoding: "utf8",
  });
  expect(whole).toContain("intact");
});
