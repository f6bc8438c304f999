import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { addDays, differenceDays, type LocalDate, msAt } from "../core/dates/index.ts";
import { demoAccounts } from "../demo/accounts.ts";
import { fillDemo } from "../demo/fillDemo.ts";
import { findHoles, findInText } from "../demo/findHoles.ts";
import { openDatabase } from "../server/database/open.ts";
import { openTestStore, type TestStore } from "../server/openTestStore.ts";
import { openStoreKey } from "../server/storeKey.ts";

/**
 * `npm run sweep:days [FROM [DAYS]]`: makes the demo for each of 400 days and asks it over HTTP what its screens ask. Nothing may
 * throw, be empty where a picture in the README shows something, lack a word, or count other than docs/jobs.md counts.
 */
const [from = "2026-12-01", days = "400"] = process.argv.slice(2) as [LocalDate?, string?];
const timeZone = "UTC";
const morningMin = 9 * 60 + 40;
/** What the browser tests and docs/jobs.md count on: the first handover's plan, and what is found without a search. */
const expectedPlan = { stops: 14, moves: 13 };

interface Answers {
  readonly today: Record<string, readonly unknown[] | null>;
  readonly care: { readonly lines: readonly unknown[] };
  readonly workshop: {
    readonly bookings: readonly unknown[];
    readonly offers: readonly unknown[];
    readonly weeks: readonly Week[];
  };
  readonly messages: { readonly messages: readonly { readonly text: string }[] };
  readonly owed: { readonly lines: readonly unknown[] };
  readonly boats: { readonly boats: readonly unknown[] };
  readonly calls: { readonly open: readonly unknown[]; readonly closed: readonly unknown[] };
}
interface Week {
  readonly begins: string;
  readonly expectedH: number;
  readonly capacityH: number;
}

/** Every text of an answer, by its path. */
function listTexts(value: unknown, path = ""): (readonly [path: string, text: string])[] {
  if (typeof value === "string") return [[path, value]];
  if (value === null || typeof value !== "object") return [];
  return Object.entries(value).flatMap(([key, each]) => listTexts(each, `${path}.${key}`));
}

async function lookAt(store: TestStore, topicsBefore: number | null): Promise<{ faults: string[]; topics: number }> {
  const odile = await store.signIn("odile");
  const faults: string[] = [];
  const get = async <A>(path: string, who = odile): Promise<A> => {
    const { status, body } = await who.get(path);
    if (status !== 200) faults.push(`${path}: answered ${status}`);
    faults.push(...findHoles(body, () => true, path));
    for (const [where, text] of listTexts(body))
      faults.push(...findInText(text).map((hole) => `${path}${where}: ${hole}`));
    return body as A;
  };
  const expectSome = (what: string, list: readonly unknown[] | null | undefined) => {
    if (list == null || list.length === 0) faults.push(`${what} is empty`);
  };
  for (const { login } of demoAccounts) {
    const today = await get<Answers["today"]>("/api/today", await store.signIn(login));
    for (const part of ["handovers", "owed", "due"] as const) expectSome(`Today (${login}): ${part}`, today[part]);
  }
  expectSome("Call list", (await get<Answers["care"]>("/api/care")).lines);
  const workshop = await get<Answers["workshop"]>("/api/workshop");
  expectSome("Workshop: slots", workshop.bookings);
  expectSome("Workshop: earlier slots to offer", workshop.offers);
  if (!workshop.weeks.some(({ expectedH, capacityH }) => expectedH > capacityH))
    faults.push("Workshop: no week is too full");
  for (const { begins } of workshop.weeks.slice(0, 3)) await get(`/api/workshop/weeks/${begins}`);
  expectSome("Owed", (await get<Answers["owed"]>("/api/owed")).lines);
  expectSome("Boats", (await get<Answers["boats"]>("/api/boats")).boats);
  const calls = await get<Answers["calls"]>("/api/dock-calls");
  expectSome("Calls", [...calls.open, ...calls.closed]);
  const reports = await get<Record<string, { now?: unknown } | null>>("/api/reports");
  for (const [name, report] of Object.entries(reports)) if (report === null) faults.push(`Reports: ${name} is empty`);
  const { plan } = await get<{ plan: { visits: { topics: string[] }[]; moves: number } }>("/api/deliveries/d-w118");
  const { length: stops } = plan.visits;
  if (stops !== expectedPlan.stops || plan.moves !== expectedPlan.moves)
    faults.push(`The first handover: ${stops} stops, ${plan.moves} moves`);
  const topics = plan.visits.reduce((sum, visit) => sum + visit.topics.length, 0);
  if (topicsBefore !== null && topics !== topicsBefore)
    faults.push(`The first handover: ${topics} topics, was ${topicsBefore}`);
  return { faults, topics };
}

let topicsBefore: number | null = null;
let failed = 0;
for (let i = 0; i < Number(days); i++) {
  const today = addDays(from, i);
  const folder = mkdtempSync(join(tmpdir(), "ravik-day-"));
  try {
    const database = await openDatabase(folder, { mustLast: false });
    await fillDemo(database, today, timeZone, openStoreKey(folder));
    await database.close();
    const beganMs = performance.now();
    const startMs = msAt(today, morningMin, timeZone);
    const nowMs = () => Math.round(startMs + performance.now() - beganMs);
    const store = await openTestStore({ dataFolder: folder, nowMs, timeZone });
    const { faults, topics } = await lookAt(store, topicsBefore);
    topicsBefore ??= topics;
    await store.stop();
    if (faults.length > 0) failed++;
    for (const fault of faults.slice(0, 12)) console.log(`${today}: ${fault}`);
  } catch (error) {
    failed++;
    console.log(`${today}: ${String((error as Error).stack)}`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  if (i % 20 === 19) console.log(`${i + 1} of ${days} days, to ${today}: ${failed} with faults`);
}
console.log(
  failed === 0
    ? `Whole on each of ${days} days.`
    : `${failed} of ${differenceDays(addDays(from, Number(days)), from)} days have faults.`,
);
process.exit(failed === 0 ? 0 : 1);
