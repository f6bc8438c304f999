import { AxeBuilder } from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { themes } from "../web/app/theme.ts";
import { findBoxFaults, tablets } from "./findBoxFaults.ts";
import { expect, signIn, test } from "./store.ts";

test.use({ onlyLooks: true });

const staffScreens = {
  "the day and the boats": [
    "/",
    "/boats",
    "/boats/new",
    "/boats/stock",
    "/boats/w118",
    "/boats/w097",
    "/boats/w097/rig",
    "/boats/w097/power",
    "/boats/w097/tow",
    "/boats/w097/ramp",
    "/boats/w097/finder",
    "/boats/w097/runs",
    "/deliveries/d-w118",
    "/deliveries/d-w118/ready",
  ],
  "the handover and what comes after": [
    "/deliveries/d-w118/walk",
    "/deliveries/d-w118/close",
    "/deliveries/d-w112/record",
    "/deliveries/d-w112/buyers/b1",
    "/deliveries/d-w112/trip",
    "/deliveries/d-w112/steps/launch",
    "/deliveries/d-w112/power",
    "/aftercare",
    "/aftercare/calls",
    "/aftercare/owed",
    "/aftercare/workshop",
    "/messages",
    "/verify",
    "/bundles",
  ],
  "the library and the store": [
    "/library",
    "/library/new",
    "/library/topic/flush",
    "/library/glossary",
    "/library/languages",
    "/library/packs",
    "/library/schools",
    "/library/styles",
    "/library/templates",
    "/more",
    "/reports",
    "/store",
    "/staff",
    "/rights",
    "/account",
    "/audit",
  ],
} as const;

const ownerViews = [
  "",
  "?view=due",
  "?view=runs",
  "?view=finder",
  "?view=power",
  "?view=trip",
  "?view=tow",
  "?view=steps",
];

for (const [part, paths] of Object.entries(staffScreens))
  test(`${part}: nothing that axe finds, and no page too wide on a phone or with large text`, async ({
    page,
    store,
  }) => {
    await signIn(page, store, "Odile Pellow");
    expect(await lookAt(page, store.address, paths)).toEqual([]);
  });

test("the owner's page: nothing that axe finds, and no page too wide on a phone or with large text", async ({
  page,
  store,
}) => {
  await signIn(page, store, "Nessa Quill");
  const made = await page.request.post(`${store.address}/api/deliveries/d-w112/link`, {
    data: { isRemote: false },
    headers: { origin: store.address },
  });
  const { token } = (await made.json()) as { token: string };
  expect(await lookAt(page, store.address, ["/sign-in", ...ownerViews.map((view) => `/o/${token}${view}`)])).toEqual(
    [],
  );
});

interface Room {
  readonly width: number;
  readonly height: number;
  /** Text so many times as large as usual. */
  readonly text: number;
  /** Everything axe knows, or what the colors of a theme alone can break. */
  readonly rules: "all" | "contrast" | null;
}

/** With every build one look of axe at each screen; `npm run sweep` looks in every theme and size, which takes minutes. */
const isWhole = process.env.RAVIK_SWEEP === "whole";

const wide = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };
const rooms: readonly Room[] = [
  { ...wide, text: 1, rules: "all" },
  { ...wide, text: 2, rules: isWhole ? "all" : null },
  { ...phone, text: 1, rules: isWhole ? "all" : null },
  { ...phone, text: 1.5, rules: null },
  // Upright and across; the other two with the sweep, and in the walk each time.
  ...tablets.filter((_, i) => isWhole || i % 2 === 0).map((size): Room => ({ ...size, text: 1, rules: null })),
];

/** What is wrong with these screens, in words. */
async function lookAt(page: Page, address: string, paths: readonly string[]): Promise<string[]> {
  const found: string[] = [];
  for (const path of paths) {
    await page.setViewportSize(wide);
    await page.goto(address + path);
    await page.waitForLoadState("networkidle");
    await expect(page.locator("h1, h2").first()).toBeVisible();
    found.push(...(await findOtherClock(page)).map((line) => `${path}, not by the store's clock: ${line}`));
    for (const room of rooms) {
      const where = `${path} at ${room.width}, text ${room.text}`;
      await dress(page, "day", room);
      const wider = await findTooWide(page);
      if (wider !== null) found.push(`${where}: ${wider}`);
      // As large as the phone's text its buttons stand one under the other, which nothing here judges.
      if (room.text === 1) found.push(...(await findBoxFaults(page)).map((fault) => `${where}: ${fault}`));
      if (room.rules !== null) found.push(...(await findFaults(page, room.rules, where)));
    }
    for (const theme of isWhole ? themes.filter((each) => each !== "day") : []) {
      await dress(page, theme, { ...wide, text: 1, rules: "contrast" });
      found.push(...(await findFaults(page, "contrast", `${path}, ${theme}`)));
    }
  }
  return found;
}

async function dress(page: Page, theme: (typeof themes)[number], { width, height, text }: Room) {
  await page.setViewportSize({ width, height });
  await page.evaluate(
    ([name, size]) => {
      const { classList, style } = document.documentElement;
      classList.remove("night", "sun");
      if (name !== "day") classList.add(name as string);
      style.fontSize = `${16 * (size as number)}px`;
    },
    [theme, text] as const,
  );
  // Two frames: what is laid out by the room it has asks for it once more.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
}

/** What reaches beyond the page, by its words; null where nothing does. */
const findTooWide = (page: Page): Promise<string | null> =>
  page.evaluate(() => {
    const { clientWidth, scrollWidth } = document.documentElement;
    if (scrollWidth <= clientWidth) return null;
    const wide = [...document.querySelectorAll("body *")].find((each) => {
      const { right, width } = each.getBoundingClientRect();
      return right > clientWidth + 1 && width > 0 && each.closest("svg, .overflow-x-auto") === null;
    });
    return `${scrollWidth} wide, by "${(wide?.textContent ?? "").slice(0, 60)}"`;
  });

/** Times of day that are not written as this store writes them, 1:30 pm. What counts down, 0:42 of 2 min, is none. */
const findOtherClock = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const choices = new Set([...document.querySelectorAll("option")].map((option) => option.textContent));
    // biome-ignore lint/performance/useDomNodeTextContent: as it stands on the screen, line by line
    const lines = document.body.innerText.split("\n");
    return lines.filter((line) => /\b\d{1,2}:[0-5]\d\b(?!\s?[ap]m| of |\t)/.test(line) && !choices.has(line));
  });

async function findFaults(page: Page, rules: "all" | "contrast", where: string): Promise<string[]> {
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"] });
  const asked =
    rules === "all" ? axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]) : axe.withRules(["color-contrast"]);
  const { violations } = await asked.analyze();
  return violations.map(
    ({ id, nodes }) => `${where}: ${id}, ${nodes[0]!.html.slice(0, 120)} ${nodes[0]!.failureSummary ?? ""}`,
  );
}
