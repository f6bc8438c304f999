import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

/** An evening west of Greenwich: there it is Saturday 13 June, in London Sunday has begun. */
const evening = "2026-06-14T02:30:00.000Z";
let nowMs = Date.parse(evening);
let store: TestStore;
let ines: Caller;

beforeAll(async () => {
  store = await openTestStore({ timeZone: "America/Chicago", nowMs: () => nowMs });
  ines = await store.signIn("ines");
});
afterAll(() => store.stop());

const snag = (text: string) => ({
  id: ulid(nowMs),
  delivery: "d-w118",
  at: toInstant(nowMs),
  by: "ines",
  device: "t",
  kind: "snag",
  topic: null,
  note: text,
  stops: false,
});
const report = async (text: string) =>
  expect((await ines.send("POST", "/api/deliveries/d-w118/entries", { entries: [snag(text)] })).status).toBe(200);

describe("an evening at the store", () => {
  it("is of the day it is there: Today, what is owed, and whose page it is", async () => {
    await report("Courtesy light flickers");
    const { body: today } = await ines.get("/api/today");
    expect(today.date).toBe("2026-06-13");
    const owed = today.owed.find(({ text }: { text: string }) => text === "Courtesy light flickers");
    expect(owed.since).toBe("2026-06-13");
    expect((await ines.get("/api/me")).body.timeZone).toBe("America/Chicago");
    expect((await ines.get("/api/boats/w118")).body.today).toBe("2026-06-13");
  });

  it("is of that day on paper too", async () => {
    const text = await store.readPaper(ines, "/api/deliveries/d-w118/record.pdf");
    expect(text).toContain("June 13, 2026");
    expect(text).not.toContain("Jun 14");
  });

  it("goes on by its own clock through the night on which clocks change", async () => {
    // The last hour of summer time, then the same hour again in winter time.
    nowMs = Date.parse("2026-11-01T06:30:00.000Z");
    ines = await store.signIn("ines");
    await report("First half past one");
    nowMs = Date.parse("2026-11-01T07:30:00.000Z");
    await report("Second half past one");
    const { body: today } = await ines.get("/api/today");
    expect(today.date).toBe("2026-11-01");
    const since = today.owed.flatMap(({ text, since }: { text: string; since: string }) =>
      text.endsWith("half past one") ? [since] : [],
    );
    expect(since).toEqual(["2026-11-01", "2026-11-01"]);
  });
});
