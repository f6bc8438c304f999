import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../../core/dates/index.ts";
import type { Role } from "../../core/walk/index.ts";
import { openTestStore, type TestStore } from "../openTestStore.ts";

let store: TestStore;
beforeAll(async () => {
  store = await openTestStore();
});
afterAll(() => store.stop());

const today = () => store.services.clock.today();

describe("Today", () => {
  it("lists today's handovers in time order, with what keeps each from starting", async () => {
    const { handovers } = await store.services.boatService.today("delivery");
    expect(handovers.map(({ time }) => time)).toEqual(["10:30", "14:00", "16:30"]);
    expect(handovers[0]).toMatchObject({
      readyDone: handovers[0]!.readyOf,
      readyOpen: [],
      stopping: [],
      state: "planned",
      mustsOpen: handovers[0]!.mustsOf,
    });
    expect(handovers[0]!.readyOf).toBeGreaterThan(30);
    expect(handovers[1]).toMatchObject({ stopping: ["Starboard tell-tale weak on the water test"] });
    expect(handovers[1]!.readyOpen).toContain("Keys, papers and lanyards counted");
    for (const { totalMin, stops, moves } of handovers) {
      expect(totalMin).toBeGreaterThan(40);
      expect(totalMin).toBeLessThanOrEqual(90);
      expect(moves).toBe(stops - 1);
    }
  });

  it("lists what is owed, overdue first, each with its boat", async () => {
    const { owed, owedInAll } = await store.services.boatService.today("delivery");
    expect(owedInAll).toBe(owed.length);
    const late = owed.map(({ due }) => due !== null && due < today());
    expect(late.slice(0, 3)).toEqual([true, true, false]);
    expect(owed[2]!.text).toContain("tell-tale weak");
    expect(new Set(owed.map(({ what }) => what))).toEqual(
      new Set(["gear", "later", "snag", "extra", "promise", "question"]),
    );
    expect((await store.services.boatService.owed()).lines).toEqual(owed);
    expect(owed.every(({ serial }) => /^\d{5}$/.test(serial))).toBe(true);
  });

  it("has each role's own business and nobody else's", async () => {
    const of = (role: Role) => store.services.boatService.today(role);
    const [technician, service, owner] = [await of("technician"), await of("service"), await of("owner")];
    const days = technician.coming.map(({ date, time }) => `${date} ${time}`);
    expect(days).toEqual(days.toSorted());
    expect(days[0]).toBe(`${today()} 10:30`);
    const stopped = technician.coming.find(({ stopping }) => stopping.length > 0)!;
    expect(stopped.readyOpen).toContain("Keys, papers and lanyards counted");
    expect([service.coming, service.course, technician.course]).toEqual([[], null, null]);
    const slots = (await store.services.bookings.list(today())).filter(({ date }) => date === today());
    expect(service.slots.map(({ id }) => id)).toEqual(slots.map(({ id }) => id));
    const owed = (await store.services.boatService.owed()).lines;
    expect(owner.course).toMatchObject({
      failedJobs: 0,
      openMusts: owed.filter(({ what }) => what === "must").length,
      unowned: owed.filter(({ what, owner }) => ["snag", "promise", "extra"].includes(what) && owner === null).length,
      latePromises: owed.filter(({ due }) => due !== null && due < today()).length,
      stopped: technician.coming.filter(({ stopping }) => stopping.length > 0).length,
    });
    expect((await of("sales")).slots).toEqual([]);
  });

  it("says a service due on both engines once, overdue before soon", async () => {
    const { due, dueInAll } = await store.services.boatService.today("delivery");
    // In season one boat more comes up than in winter.
    expect(dueInAll).toBe(due.length);
    const states = due.map((line) => line.due.state);
    expect([...new Set(states)]).toEqual(["overdue", "soon"]);
    expect(states).toEqual(states.toSorted());
    expect(due[0]).toMatchObject({ engine: "Both engines", title: "First service", due: { targetH: 20 } });
    expect(due[0]!.likelyNowH).toBeGreaterThan(due[0]!.reportedH);
  });

  it("forgets what fell due as soon as hours or a service are entered", async () => {
    const odile = (await store.services.people.findByLogin("odile"))!;
    const before = (await store.services.boatService.today("delivery")).due.find(({ boat }) => boat === "w081")!;
    for (const engine of ["port", "starboard"]) {
      const service = {
        id: ulid(),
        engine,
        item: "first-service",
        date: today(),
        hours: 22,
        outcome: "done" as const,
        note: "",
      };
      await store.services.careEntryService.addService("w081", odile.name, service);
    }
    const { due } = await store.services.boatService.today("delivery");
    expect(before.title).toBe("First service");
    expect(due.find(({ boat }) => boat === "w081")?.title).not.toBe("First service");
  });

  it("drops what is settled", async () => {
    const nessa = (await store.services.people.findByLogin("nessa"))!;
    const { owed } = await store.services.boatService.today("delivery");
    const one = owed.find(({ what }) => what === "later")!;
    await store.services.handoverService.addEntries(one.delivery, nessa, [
      {
        id: ulid(),
        delivery: one.delivery,
        at: toInstant(Date.now()),
        by: nessa.id,
        device: "t",
        kind: "settle",
        ref: one.ref,
        note: "went through it by phone",
      },
    ]);
    const after = await store.services.boatService.today("delivery");
    expect(after.owed.map(({ ref }) => ref)).not.toContain(one.ref);
    expect(after.owedInAll).toBe(owed.length - 1);
  });
});
