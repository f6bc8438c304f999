import { readFileSync } from "node:fs";
import type { APIRequestContext, Page } from "@playwright/test";
import type { DemoProcess } from "../cli/demoProcess.ts";
import { nowMsOf } from "../cli/demoProcess.ts";
import type { LocalDate } from "../core/dates/index.ts";
import { type Asker, makeEveryStage } from "../demo/everyStage.ts";
import { expect, signIn, test } from "./store.ts";

async function askerOf(request: APIRequestContext, store: DemoProcess, login: string): Promise<Asker> {
  const ask = async (method: string, path: string, data?: unknown, type?: string) => {
    const headers: Record<string, string> = { origin: store.address };
    if (type !== undefined) headers["content-type"] = type;
    const options = { method, headers, ...(data === undefined ? {} : { data: data as object }) };
    const answer = await request.fetch(store.address + path, options);
    expect(answer.ok(), `${method} ${path}: ${answer.ok() ? "" : await answer.text()}`).toBe(true);
    return answer.json();
  };
  await ask("POST", "/api/sign-in", { login, password: "slack-water" });
  return {
    get: (path) => ask("GET", path),
    send: (method, path, body) => ask(method, path, body),
    importBundle: (bytes) => ask("POST", "/api/bundles", Buffer.from(bytes), "application/zip"),
  };
}

/** What on the screen has no words, and where a comma stands alone, in words. */
const findHoles = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const seen = (each: Element) => each.getClientRects().length > 0;
    const nameOf = (each: Element) =>
      (each.getAttribute("aria-label") ?? each.getAttribute("aria-labelledby") ?? each.textContent ?? "").trim() ||
      (each.querySelector("[aria-label], img[alt], svg title")?.outerHTML ?? "");
    const empty = [...document.querySelectorAll("a[href], button, h1, h2, h3, h4, main li")]
      .filter((each) => seen(each) && nameOf(each) === "")
      .map((each) => `no words: ${each.outerHTML.slice(0, 160)}`);
    // As it stands on the screen, line by line.
    // biome-ignore lint/performance/useDomNodeTextContent: where a line ends is what is asked
    const lines = (document.querySelector("main") as HTMLElement).innerText.split("\n").map((line) => line.trim());
    const holes = [/^,/, /\s,/, /,\s*[,.;]/, /\bundefined\b/, /\bnull\b/, /\bNaN\b/, /\[object/, /\(\s*\)/];
    const bare = lines.filter((line) => holes.some((hole) => hole.test(line)));
    return [...empty, ...bare.map((line) => `bare: ${line}`)];
  });

test("no empty name on any screen of a store with boats of every stage", async ({ page, store, playwright }) => {
  const [owner, specialist] = [await playwright.request.newContext(), await playwright.request.newContext()];
  const { date } = (await (await askerOf(owner, store, "odile")).get("/api/today")) as { date: LocalDate };
  const stages = await makeEveryStage({
    owner: await askerOf(owner, store, "odile"),
    specialist: await askerOf(specialist, store, "nessa"),
    today: date,
    nowMs: nowMsOf(store.time),
    bundle: readFileSync("server/golden/handover-1.zip"),
  });
  const { inStock, planned, struck, resold, comingBack } = stages;
  const boats = [inStock, planned.boat, struck.boat, resold.boat, comingBack.boat];
  const paths = [
    ...["/", "/boats", "/aftercare", "/aftercare/owed", "/aftercare/calls", "/aftercare/workshop", "/messages"],
    ...["/reports", "/audit", "/staff", "/store"],
    ...boats.map((boat) => `/boats/${boat}`),
    ...[struck, resold, comingBack].flatMap(({ delivery }) => [`/deliveries/${delivery}`]),
    ...[struck, resold].map(({ delivery }) => `/deliveries/${delivery}/record`),
  ];
  await signIn(page, store, "Odile Pellow");
  const found: string[] = [];
  for (const path of paths) {
    await page.goto(store.address + path);
    await page.waitForLoadState("networkidle");
    await expect(page.locator("h1, h2").first()).toBeVisible();
    found.push(...(await findHoles(page)).map((hole) => `${path}: ${hole}`));
  }
  expect(found).toEqual([]);
  // The counter's day: every slot of today says which boat it is, the one that nobody has bought yet too.
  await signIn(page, store, "Ines Marr");
  await page.getByRole("link", { name: "Workshop" }).first().click();
  const slots = page.getByRole("link", { name: /^Wending 23 24701$/ });
  await expect(slots.first()).toBeVisible();
  expect(await findHoles(page)).toEqual([]);
  await owner.dispose();
  await specialist.dispose();
});
