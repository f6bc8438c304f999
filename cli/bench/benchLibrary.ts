import { rigTemplates, topics } from "../../content/index.ts";
import { createRandom } from "../../core/random.ts";
import { regions } from "../../core/region/index.ts";
import {
  adaptTopics,
  defaultPlanOptions,
  listTopicsFor,
  planWalk,
  routeStyles,
  simulateWalk,
} from "../../core/route/index.ts";
import { fillTopic } from "../../core/topic/index.ts";
import { launchBrowser } from "../browser.ts";
import { startDemoProcess } from "../demoProcess.ts";
import { type Figure, figureMs } from "./figures.ts";

const libraryTopics = 500;
const stockRows = 5000;
const walks = 20_000;

const time = (work: () => unknown) => {
  const startMs = performance.now();
  work();
  return performance.now() - startMs;
};

/** In the page: from a key typed into the search to the task after the frame that shows what it found. */
const typeOnce = (letter: string) => `new Promise((resolve) => {
  const field = document.querySelector("input[type=search]");
  const setValue = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const startMs = performance.now();
  setValue.call(field, field.value + ${JSON.stringify(letter)});
  field.dispatchEvent(new Event("input", { bubbles: true }));
  const workMs = performance.now() - startMs;
  requestAnimationFrame(() => setTimeout(() => resolve({ workMs, paintMs: performance.now() - startMs })));
})`;

/** Plans of the largest template, the rig sheet, the library search, the spread of a walk, a stock list. */
export async function benchLibrary(): Promise<Figure[]> {
  return [...benchPlans(), ...(await benchScreens())];
}

function benchPlans(): Figure[] {
  const sized = Object.values(rigTemplates).map((rig) => ({ rig, here: listTopicsFor(rig, topics) }));
  const { rig, here } = sized.reduce((most, each) => (each.here.length > most.here.length ? each : most));
  const { topics: told } = adaptTopics(
    here.map((topic) => fillTopic(topic, rig, regions.us)),
    defaultPlanOptions,
  );
  const plan = (budgetMin: number | null) =>
    Array.from({ length: 10 }, () =>
      routeStyles.map((style) => time(() => planWalk(rig, told, style, { budgetMin }))),
    ).flat();
  for (let i = 0; i < 3; i++) plan(null);
  const minutes = told.map((topic) => topic.minutes);
  const random = createRandom(1);
  return [
    figureMs(
      `plan of the largest template (${rig.model}, ${told.length} topics), any style`,
      plan(null),
      50,
      "compute",
    ),
    figureMs("the same within 90 min", plan(90), 200, "compute"),
    figureMs(
      `${walks} simulated walks of ${told.length} topics`,
      Array.from({ length: 10 }, () => time(() => simulateWalk(minutes, 10, walks, random))),
      300,
      "compute",
    ),
  ];
}

async function benchScreens(): Promise<Figure[]> {
  const demo = await startDemoProcess();
  const browser = await launchBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${demo.address}/sign-in`);
  await page.getByRole("button", { name: /Odile Pellow/ }).click();
  await page.getByRole("list", { name: "Handovers today" }).waitFor();

  // A rig sheet from another screen of the app, its script fetched once before.
  const sheetMs: number[] = [];
  await page.goto(`${demo.address}/boats/h402`);
  for (let i = 0; i < 12; i++) {
    await page.getByRole("link", { name: "Boat sheet" }).waitFor();
    const ms = await page.evaluate<number>(`new Promise((resolve) => {
      const startMs = performance.now();
      const observer = new MutationObserver(() => {
        if (document.querySelector("[role=tablist]") === null) return;
        observer.disconnect();
        requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs)));
      });
      observer.observe(document.body, { childList: true, subtree: true });
      [...document.querySelectorAll("a")].find((a) => a.textContent === "Boat sheet").click();
    })`);
    if (i > 0) sheetMs.push(ms);
    await page.goBack();
  }

  const extra = Array.from({ length: libraryTopics - topics.length }, (_, i) => ({
    ...topics[i % topics.length]!,
    id: `own-${i}`,
    title: `Our own ${i}: ${topics[i % topics.length]!.title}`.slice(0, 80),
    after: [],
  }));
  const taken = await page.request.post(`${demo.address}/api/library/topics`, {
    data: { topics: extra },
    headers: { origin: demo.address },
  });
  if (!taken.ok()) throw new Error(`benchLibrary: expected the topics to be taken, got ${taken.status()}`);
  await page.goto(`${demo.address}/library`);
  await page.getByText(new RegExp(`of ${libraryTopics} topics`)).waitFor();
  await page.getByLabel("only what it has").uncheck();
  const keysMs: number[] = [];
  for (const words of ["battery", "drain plug", "water in", "trailer"]) {
    await page.getByLabel("Find a topic").fill("");
    for (const letter of words) {
      const { workMs } = await page.evaluate<{ workMs: number; paintMs: number }>(typeOnce(letter));
      keysMs.push(workMs);
    }
  }

  const list = ["HIN,Model,Model year,Length"];
  for (let i = 0; i < stockRows; i++)
    list.push(`SLW${String(10_000 + i)}B626,${Object.values(rigTemplates)[i % 7]!.model},2026,6.${i % 9}`);
  const previewMs: number[] = [];
  for (let i = 0; i < 3; i++) {
    await page.goto(`${demo.address}/boats/stock`);
    const field = page.getByLabel("Choose the file");
    await field.waitFor();
    const startMs = performance.now();
    await field.setInputFiles({ name: "stock.csv", mimeType: "text/csv", buffer: Buffer.from(list.join("\n")) });
    await page.getByText(`${stockRows} new`).waitFor();
    previewMs.push(performance.now() - startMs);
  }
  await browser.close();
  await demo.stop();
  return [
    figureMs("opening a rig sheet, from touch to paint", sheetMs, 100, "paint"),
    figureMs(`a key typed in the search over ${libraryTopics} topics, until it is drawn up`, keysMs, 16, "paint"),
    figureMs(`preview of a stock list of ${stockRows} rows`, previewMs, 2000, "paint"),
  ];
}
