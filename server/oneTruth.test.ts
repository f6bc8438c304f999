import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { AnswerOf, Boat, CallList, endpoints, OwnerPage, Today, WorkshopSheet } from "../api/index.ts";
import { makeFleet } from "../demo/makeFleet.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let odile: Caller;
beforeAll(async () => {
  store = await openTestStore();
  // Three years of boats sold before, read and served now and then.
  await makeFleet(store.database, store.services.clock.today(), 30);
  odile = await store.signIn("odile");
}, 120_000);
afterAll(() => store.stop());

const read = async <T>(path: string): Promise<T> => (await odile.get(path)).body as T;
const readText = async (path: string): Promise<string> => {
  const { text } = (await odile.get(path)).body;
  return text;
};
const unfold = (text: string) => text.replaceAll("\r\n ", "");
const daysOf = (calendar: string) =>
  new Map(
    unfold(calendar)
      .split("BEGIN:VEVENT")
      .slice(1)
      .map((event) => [/UID:(\S+)/.exec(event)![1]!, /DTSTART;VALUE=DATE:(\d{8})/.exec(event)?.[1] ?? null]),
  );
const compact = (date: string) => date.replaceAll("-", "");

describe("the day on which a service falls due", () => {
  it("is the same on the boat's page, the boats list, Today, the call list, in the workshop and in every calendar", async () => {
    const { boats } = await read<AnswerOf<typeof endpoints.boats>>("/api/boats");
    const today = await read<Today>("/api/today");
    const calls = await read<CallList>("/api/care");
    const workshop = await read<WorkshopSheet>("/api/workshop");
    const { token } = (await odile.send("POST", "/api/feed", {})).body;
    const feed = daysOf(await readText(`/api/feeds/${token}`));
    let compared = 0;
    for (const row of boats.filter(({ inService }) => inService !== null)) {
      const boat = await read<Boat>(`/api/boats/${row.id}`);
      const items = boat.care.flatMap((care) => care.items);
      const first = items.flatMap(({ dueDate }) => dueDate ?? []).sort()[0] ?? null;
      expect(row.due?.dueDate ?? null, row.id).toBe(first);
      if (first === null) continue;
      compared++;
      const line = today.due.find((each) => each.boat === row.id);
      if (line !== undefined) expect(line.due).toEqual(row.due);
      const call = calls.lines.find((each) => each.boat === row.id)?.reasons.find(({ reason }) => reason === "service");
      if (call !== undefined)
        expect(call).toMatchObject({
          date: first,
          range: row.due!.range,
          isAnyDay: row.due!.isAnyDay,
          isOverdue: row.due!.state === "overdue",
        });
      for (const offer of workshop.offers.filter((each) => each.boat === row.id))
        expect(boat.visits.flatMap((visit) => visit.items).map(({ dueDate }) => dueDate)).toContain(offer.dueDate);
      expect(feed.get(`due-${row.id}@ravik`)).toBe(compact(first));
      const own = daysOf(await readText(`/api/boats/${row.id}/calendar.ics`));
      for (const care of boat.care)
        for (const { id, dueDate } of care.items) {
          const [, day] = [...own].find(([uid]) => uid.startsWith(`${row.id}-${care.engine}-${id}-`)) ?? [];
          expect(day ?? null).toBe(dueDate === null ? null : compact(dueDate));
        }
      for (const care of boat.care)
        if (care.forecast?.nextService != null) expect(care.items).toContainEqual(care.forecast.nextService);
    }
    expect(compared).toBeGreaterThan(25);
  });

  it("is the same on the owner's page", async () => {
    const { token } = (await odile.send("POST", "/api/deliveries/d-w097/link", { isRemote: false, send: false })).body;
    const page = (await store.stranger.get(`/api/owner/${token}`)).body as unknown as OwnerPage;
    const boat = await read<Boat>("/api/boats/w097");
    expect(page.care.map(({ items }) => items)).toEqual(boat.care.map(({ items }) => items));
    expect(page.visits).toEqual(boat.visits);
  });
});
