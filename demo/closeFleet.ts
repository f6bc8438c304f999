import { addDays, dayOf, type LocalDate, toInstant } from "../core/dates/index.ts";
import { defaultPlanOptions, styleIds } from "../core/route/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { createClock } from "../server/clock.ts";
import { createServices, type Services } from "../server/createServices.ts";
import type { Database } from "../server/database/open.ts";
import { contactOf } from "../server/services/contactOf.ts";
import { summarize } from "../server/services/summarize.ts";
import type { StoreKey } from "../server/storeKey.ts";
import { asItHappened, createId, tellWalk, type WalkTale } from "./walkEntries.ts";

const nessa = { id: "nessa", name: "Nessa Quill", role: "delivery" } as const;
const odile = { id: "odile", name: "Odile Pellow", role: "owner" } as const;
const model = "wending-23";
/** So long ago that all that was owed has been settled. */
const settledDays = 45;
const dayMs = 86_400_000;
const base = (delivery: string, ms: number) => ({
  id: createId(ms),
  delivery,
  at: toInstant(ms),
  by: nessa.id as string,
  device: "demo",
});

/**
 * Closes the handovers of some boats of the fleet, one after the other as they came, so that reports have something to say:
 * a walk that ran out of time, snags that were mended sooner or later, promises, calls. Always the same for the same day.
 */
export async function closeFleet(database: Database, today: LocalDate, timeZone: string, storeKey: StoreKey, most = 5) {
  let nowMs = 0;
  const clock = { ...createClock(timeZone, () => nowMs), timeZone, today: () => dayOf(nowMs, timeZone) };
  const services = createServices(database, clock, null, { storeKey, tellsPast: true });
  // By number from the latest on: whichever day it is, it is the same walks of the same boat that planning learns from.
  const handed = (await services.boats.listHeads())
    .flatMap((boat) => {
      const { inService, template } = boat;
      const isOld = inService !== null && inService <= addDays(today, -settledDays) && boat.id.startsWith("f");
      return isOld && template === model && contactOf(boat).name !== "" ? [{ ...boat, inService }] : [];
    })
    .sort((a, b) => (a.inService < b.inService ? -1 : 1));
  // All are planned before any is walked: one plan is searched for all, and no more is asked of whoever starts the demo.
  const planned: { readonly delivery: Planned; readonly startMs: number }[] = [];
  for (const boat of handed.slice(-most)) {
    const startMs = Date.parse(`${boat.inService}T15:00:00Z`);
    nowMs = startMs - dayMs;
    await plan(services, `d-${boat.id}`, boat.id, boat.inService);
    planned.push({ delivery: await services.handoverService.describe(`d-${boat.id}`), startMs });
  }
  for (const [i, { delivery, startMs }] of planned.entries()) {
    const allow = { by: odile.id, kind: "allow", reason: "Made ready at the dock" } as const;
    const allowed: Entry = { ...base(delivery.id, startMs - dayMs), ...allow };
    await services.handoverService.addEntries(delivery.id, odile, [allowed], asItHappened);
    const walked = tellWalk({ ...delivery, entries: [allowed] }, taleOf(i, delivery, startMs));
    nowMs = startMs + 3 * 3_600_000;
    await services.handoverService.addEntries(delivery.id, nessa, walked, asItHappened);
    const after = tellAfter(delivery.id, i, walked, startMs).filter(({ at }) => dayOf(at, timeZone) <= today);
    nowMs = Math.max(nowMs, ...after.map(({ at }) => Date.parse(at)));
    if (after.length > 0) await services.handoverService.addEntries(delivery.id, nessa, after, asItHappened);
  }
}

async function plan(
  { boats, deliveries, libraryService, rigService }: Services,
  id: string,
  boatId: string,
  date: LocalDate,
) {
  const boat = (await boats.find(boatId))!;
  const planOptions = { ...defaultPlanOptions, style: styleIds[0]!, budgetMin: 75 };
  const prepared = await rigService.prepare(boat.rigText, await libraryService.read(), planOptions);
  const buyers = [{ id: "b1", name: contactOf(boat).name }];
  const summary = summarize(prepared, [], [], false);
  await deliveries.add({ id, boatId, date, time: "15:00", note: "", buyers, planOptions, summary });
}

type Planned = Awaited<ReturnType<Services["handoverService"]["describe"]>>;

function taleOf(i: number, { plan: { visits }, rig, topics, date }: Planned, startMs: number): WalkTale {
  const musts = new Set(topics.filter(({ must }) => must).map((topic) => topic.id));
  const planned = visits.flatMap((visit) => visit.topics).filter((topic) => !musts.has(topic));
  return {
    by: nessa.id,
    startMs,
    seed: i + 1,
    hours: Object.fromEntries(rig.engines.map(({ id }) => [id, 0.6])),
    isSigned: true,
    // Now and then the day runs out before the end of the walk.
    skipped: new Set(i % 4 === 2 ? planned.slice(-2) : []),
    snags:
      i % 2 === 0
        ? [{ topic: null, note: "Gel coat is chipped under the rub rail", stops: false, how: "cosmetic" }]
        : [],
    promises: i % 3 === 0 ? [{ note: "Bring the cockpit cover", isExtra: false, due: addDays(date, 21) }] : [],
  };
}

/** What came after: snags mended sooner or later, promises kept by their day or after it, and some rang. Nothing stays open. */
function tellAfter(delivery: string, i: number, walked: readonly Entry[], startMs: number): Entry[] {
  const entry = (days: number) => base(delivery, startMs + days * dayMs);
  const after: Entry[] = [];
  for (const { kind, id: ref } of walked) {
    if (kind === "snag") after.push({ ...entry(5 + i), kind: "settle", ref, note: "Filled and polished" });
    if (kind === "promise")
      after.push({ ...entry(i % 6 === 0 ? 12 : 30), kind: "settle", ref, note: "Handed over at the dock" });
  }
  if (i % 5 === 0) after.push({ ...entry(8), kind: "call", topic: "plotter", note: "How to save a waypoint" });
  if (i % 7 === 3) after.push({ ...entry(40), kind: "call", topic: null, note: "When the shop opens on Saturdays" });
  return after.sort((a, b) => (a.at < b.at ? -1 : 1));
}
