import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { endpoints } from "../api/index.ts";
import { addDays } from "../core/dates/index.ts";
import { entrySchema, foldWalk, listObstacles } from "../core/walk/index.ts";
import { openTestStore, type TestStore } from "../server/openTestStore.ts";
import { createStoreKey } from "../server/storeKey.ts";
import { closeFleet } from "./closeFleet.ts";
import { makeFleet } from "./makeFleet.ts";
import { makeLargeStore } from "./makeLargeStore.ts";
import { tellMakeReady, tellWalk } from "./walkEntries.ts";

let store: TestStore;
beforeAll(async () => {
  store = await openTestStore();
});
afterAll(() => store.stop());

const tale = {
  by: "nessa",
  startMs: Date.UTC(2026, 5, 1, 10),
  seed: 5,
  hours: { port: 1, starboard: 1 },
  isSigned: true,
};

describe("the demo store", () => {
  it("has a boat to be walked today, one walked yesterday with something owed, one of two months ago with hours", async () => {
    const today = store.services.clock.today();
    const { boatService, deliveries } = store.services;
    expect((await deliveries.listOn(today)).map(({ summary }) => summary.state)).toEqual([
      "planned",
      "planned",
      "planned",
    ]);
    const [yesterday] = await deliveries.listOn(addDays(today, -1));
    expect(yesterday!.summary).toMatchObject({ state: "signed", owed: [{ what: "later" }] });
    const older = await boatService.describe("w097");
    expect(older.inService).toBe(addDays(today, -61));
    expect(older.readings).toHaveLength(8);
    expect(older.care[0]!.breakIn!.done).toBe(true);
  });

  it("gives every screen what its description says", async () => {
    expect(endpoints.today.answer.safeParse(await store.services.boatService.today("delivery")).success).toBe(true);
    for (const id of ["w118", "w121", "w112", "w097", "w081", "m204", "s310", "f207", "h402", "p615"]) {
      const boat = endpoints.boat.answer.safeParse(await store.services.boatService.describe(id));
      expect(boat.error?.issues ?? [], id).toEqual([]);
      const delivery = endpoints.delivery.answer.safeParse(await store.services.handoverService.describe(`d-${id}`));
      expect(delivery.error?.issues ?? [], id).toEqual([]);
    }
  });

  it("has a name of 40 characters and more, and no two boats of one hull number", async () => {
    const { boats } = await store.services.boatService.list();
    expect(boats.some(({ buyers }) => buyers.length >= 40)).toBe(true);
    expect(new Set(boats.map(({ hull }) => hull)).size).toBe(boats.length);
    for (const { hull } of boats) expect(hull).toMatch(/^[A-Z]{3}[A-Z0-9]{5}[A-L]\d{3}$/);
  });
});

describe("tellWalk", () => {
  it("tells a walk that could be closed, in entries that any border takes", async () => {
    const delivery = await store.services.handoverService.describe("d-w118");
    const entries = tellWalk(delivery, tale);
    for (const entry of entries) expect(entrySchema.safeParse(entry).success, entry.kind).toBe(true);
    expect(listObstacles(delivery, foldWalk([...delivery.entries, ...entries]))).toEqual([]);
    expect(entries.map(({ at }) => at)).toEqual(entries.map(({ at }) => at).sort());
  });

  it("takes about the minutes planned, and the same for the same seed", async () => {
    const delivery = await store.services.handoverService.describe("d-w118");
    const spent = (seed: number) =>
      [...foldWalk(tellWalk(delivery, { ...tale, seed })).topics.values()].reduce((sum, { spentS }) => sum + spentS, 0);
    expect(spent(5)).toBe(spent(5));
    expect(spent(5)).not.toBe(spent(6));
    expect(spent(5) / 60 / delivery.plan.topicMin).toBeGreaterThan(0.6);
    expect(spent(5) / 60 / delivery.plan.topicMin).toBeLessThan(1.1);
  });

  it("leaves out of make-ready what was not done", async () => {
    const delivery = await store.services.handoverService.describe("d-w118");
    const done = delivery.makeReady.filter(({ id }) => ["fuel", "keys"].includes(id));
    const entries = tellMakeReady(delivery, "tobin", 0, done);
    expect([...foldWalk(entries).ready.keys()]).toEqual(["fuel", "keys"]);
    for (const entry of entries) expect(entrySchema.safeParse(entry).success).toBe(true);
  });
});

describe("makeLargeStore", () => {
  it("fills a store that the services read like any other", async () => {
    await makeLargeStore(store.database, store.services.clock.today(), 25, { sealed: 2 });
    const { boats } = await store.services.boatService.list();
    expect(boats.length).toBeGreaterThan(30);
    const made = boats.filter(({ id }) => /^f4\d\d$/.test(id));
    const handovers = await Promise.all(made.map(({ id }) => store.services.handoverService.describe(`d-${id}`)));
    expect(handovers.filter(({ seal }) => seal !== null)).toHaveLength(2);
    expect(handovers.filter(({ entries }) => entries.length === 0)).toHaveLength(1);
    for (const entry of handovers.flatMap(({ entries }) => entries))
      expect(entrySchema.safeParse(entry).success).toBe(true);
    const { dryKg } = handovers[1]!.rig.weights!;
    expect(handovers.filter(({ rig }) => rig.weights?.dryKg === dryKg)).toHaveLength(1);
  });
});

it("the fleet's closed handovers leave nothing open, verify, and give the reports something to say", async () => {
  const fresh = await openTestStore();
  const today = fresh.services.clock.today();
  await makeFleet(fresh.database, today);
  const before = await fresh.services.reportService.read();
  await closeFleet(fresh.database, today, "UTC", createStoreKey(), 6);
  const after = await fresh.services.reportService.read();
  const closed = ({ closed: { now, before: last } }: typeof after) => now + last;
  expect(closed(after)).toBe(closed(before) + 6);
  expect(after.promises.now!.n + (after.promises.before?.n ?? 0)).toBeGreaterThan(before.promises.now?.n ?? 0);
  const ids = (await fresh.services.boats.listHeads()).flatMap(({ id }) => (id.startsWith("f") ? [id] : []));
  const fleet = (await fresh.services.deliveries.listOfBoats(ids)).map(({ summary }) => summary);
  const signed = fleet.filter(({ state }) => state === "signed");
  expect(signed).toHaveLength(6);
  expect(signed.flatMap(({ owed }) => owed)).toEqual([]);
  await fresh.stop();
});
