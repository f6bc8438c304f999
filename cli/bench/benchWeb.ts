import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { launchBrowser } from "../browser.ts";
import { startDemoProcess } from "../demoProcess.ts";
import { type Figure, figureMs } from "./figures.ts";

const root = new URL("../..", import.meta.url).pathname;

/** In the page: press the key of a mark; in the frame after the title has changed, what follows that frame is after paint. */
export const markOnce = `new Promise((resolve) => {
  const title = () => document.querySelector("#topic").textContent;
  const before = title();
  const startMs = performance.now();
  const observer = new MutationObserver(() => {
    if (title() === before) return;
    observer.disconnect();
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs)));
  });
  observer.observe(document.body, { childList: true, subtree: true, characterData: true });
  document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "3", bubbles: true }));
})`;

/** In the page: move the grade's slider; in the frame after the drawing says the new grade, what follows that frame is after paint. */
const slideOnce = (grade: number) => `new Promise((resolve) => {
  const slider = [...document.querySelectorAll("input[type=range]")].find((each) => each.labels[0].textContent === "Grade");
  const drawing = () => document.querySelector("svg[aria-label^='Side section']").getAttribute("aria-label");
  const before = drawing();
  const startMs = performance.now();
  const observer = new MutationObserver(() => {
    if (drawing() === before) return;
    observer.disconnect();
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs)));
  });
  observer.observe(document.body, { attributes: true, childList: true, subtree: true });
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(slider, "${grade}");
  slider.dispatchEvent(new Event("input", { bubbles: true }));
})`;

/** JavaScript fetched from sign-in to Today, and the time from a mark to the paint that shows it. */
export async function benchWeb(): Promise<Figure[]> {
  const demo = await startDemoProcess();
  const browser = await launchBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const scripts = new Set<string>();
  page.on("response", (response) => {
    const { pathname } = new URL(response.url());
    if (pathname.endsWith(".js")) scripts.add(pathname);
  });
  await page.goto(`${demo.address}/sign-in`);
  await page.getByRole("button", { name: /Nessa Quill/ }).click();
  await page.getByRole("list", { name: "Handovers today" }).waitFor();
  await page.waitForLoadState("networkidle");
  const bytes = [...scripts].reduce(
    (sum, path) => sum + gzipSync(readFileSync(join(root, "dist/web", path))).length,
    0,
  );
  // All of the walk, so that there are enough topics to mark.
  const { planOptions } = await (await page.request.get(`${demo.address}/api/deliveries/d-w118`)).json();
  await page.request.put(`${demo.address}/api/deliveries/d-w118/plan`, {
    data: { ...planOptions, budgetMin: null },
    headers: { origin: demo.address },
  });
  await page.goto(`${demo.address}/deliveries/d-w118/walk`);
  await page.getByRole("button", { name: "Start the walk" }).click();
  await page.locator("#topic").waitFor();
  // The app is put aboard once, beside the first visit; what is measured is every visit after it.
  await page.evaluate("navigator.serviceWorker.ready");
  await page.waitForLoadState("networkidle");
  const marksMs: number[] = [];
  for (let i = 0; i < 50; i++) {
    const ms = await page.evaluate<number>(markOnce);
    marksMs.push(ms);
  }
  await page.goto(`${demo.address}/boats/w118/ramp`);
  await page.getByLabel("Grade", { exact: true }).waitFor();
  const slidesMs: number[] = [];
  for (let i = 0; i < 60; i++) slidesMs.push(await page.evaluate<number>(slideOnce(8 + (i % 20) / 2)));
  await browser.close();
  await demo.stop();
  return [
    {
      what: `JavaScript from sign-in to Today, ${scripts.size} files`,
      value: `${(bytes / 1000).toFixed(1)} kB gzip`,
      goal: "180 kB",
      isMet: bytes <= 180_000,
    },
    figureMs("mark to paint in the walk", marksMs, 50, "paint"),
    figureMs("ramp: slider to paint, all of it answered and drawn", slidesMs, 16, "paint"),
  ];
}
