import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { addDays } from "../core/dates/index.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createServices } from "./createServices.ts";
import { type Database, openDatabase } from "./database/open.ts";
import { createJobs } from "./jobs.ts";
import { instantOf } from "./storeTime.ts";

const root = mkdtempSync(join(tmpdir(), "ravik-jobs-"));
let database: Database;
let nowMs = 0;
let folder = "";
let count = 0;
const zone = "UTC";
const clock = { timeZone: zone, nowMs: () => nowMs, today: () => new Date(nowMs).toISOString().slice(0, 10) };

beforeAll(async () => {
  const seed = await openDatabase(join(root, "seed"));
  await makeDemoStore(seed, "2026-06-13", zone);
  await seed.close();
});
beforeEach(async () => {
  nowMs = Date.parse("2026-06-13T12:00:00Z");
  folder = join(root, String(count++));
  cpSync(join(root, "seed"), folder, { recursive: true });
  database = await openDatabase(folder);
});
afterEach(() => database.close());
afterAll(() => rmSync(root, { recursive: true, force: true }));

const job = (id: string, dueAtMs = nowMs) => ({ id, kind: "ring", boatId: "w118", dueAtMs });

describe("jobs", () => {
  it("are done once, when they are due, however often they are planned and looked at", async () => {
    const done: string[] = [];
    const jobs = createJobs(database, clock);
    jobs.on("ring", async ({ id }) => {
      done.push(id);
      return "rung";
    });
    await jobs.plan([job("a"), job("b", nowMs + 60_000)]);
    await jobs.plan([job("a"), job("a")]);
    await Promise.all([jobs.tick(), jobs.tick(), jobs.tick()]);
    expect(done).toEqual(["a"]);
    nowMs += 60_000;
    await jobs.tick();
    await jobs.tick();
    expect(done).toEqual(["a", "b"]);
    expect((await jobs.list(10)).map(({ id, state, note }) => [id, state, note])).toContainEqual(["b", "done", "rung"]);
  });

  it("survive a restart", async () => {
    await createJobs(database, clock).plan([job("a")]);
    await database.close();
    database = await openDatabase(folder);
    const done: string[] = [];
    const jobs = createJobs(database, clock);
    jobs.on("ring", async ({ id }) => {
      done.push(id);
      return "";
    });
    await jobs.tick();
    expect(done).toEqual(["a"]);
  });

  it("that fail leave nothing behind, are tried again later and later, then stand as failed with why", async () => {
    const jobs = createJobs(database, clock);
    let tries = 0;
    jobs.on("ring", async (_, transaction) => {
      tries++;
      await database.models.settings.upsert({ key: "half", value: "done" }, { transaction });
      throw new Error("nobody answers");
    });
    await jobs.plan([job("a")]);
    for (let hour = 0; hour < 12; hour++) {
      await jobs.tick();
      nowMs += 3_600_000;
    }
    expect(tries).toBe(5);
    expect(await database.models.settings.findByPk("half")).toBeNull();
    expect((await jobs.list(10))[0]).toMatchObject({ id: "a", state: "failed", tries: 5, note: "nobody answers" });
  });
});

describe("what the server does by itself", () => {
  const start = () => createServices(database, clock, null, { origin: () => "http://yard.test" });

  it("asks how it goes two days after a handover, at ten, once", async () => {
    const { aftercareService, jobs } = start();
    await aftercareService.planJobs();
    const planned = (await jobs.list(50)).filter(({ kind, boatId }) => kind === "hello" && boatId === "w112");
    // Handed over the day before.
    expect(planned.map(({ dueAtMs }) => dueAtMs)).toEqual([instantOf("2026-06-14", 600, zone)]);
    nowMs = Date.parse("2026-06-14T10:00:30Z");
    await aftercareService.planJobs();
    await jobs.tick();
    await jobs.tick();
    const messages = await aftercareService.listMessages("w112");
    expect(messages).toHaveLength(1);
    expect(messages[0]!.text).toMatch(/^Hello Dov, it is Pellow & Marr.*first days with Wending 23/);
    await aftercareService.carryOn();
    // No number was given: it could not be delivered, and says so.
    expect((await aftercareService.listMessages("w112"))[0]!.state).toBe("failed");
  });

  it("asks for hours at the end of a break-in with an address that opens their page", async () => {
    const services = start();
    const { aftercareService, jobs, careEntryService } = services;
    await careEntryService.addReading("w112", "Nessa", {
      id: "01HZZZZZZZZZZZZZZZZZZZZZ01",
      engine: "port",
      date: "2026-06-13",
      hours: 9.9,
      source: "phone",
      answer: "as-read",
    });
    // With a tenth of an hour left it ends with the next trip, likely within a week.
    nowMs += 4 * 86_400_000;
    await aftercareService.planJobs();
    nowMs += 4 * 86_400_000;
    await jobs.tick();
    const message = (await aftercareService.listMessages("w112")).find(({ kind }) => kind === "break-in-end");
    expect(message!.text).toContain("http://yard.test/o/…");
  });

  it("sends nothing in quiet hours; what was written then goes out in the morning", async () => {
    const { aftercareService, boats } = start();
    await boats.setContact("w097", { name: "", phone: "555 0177", optOut: false });
    nowMs = Date.parse("2026-06-13T21:30:00Z");
    const message = { id: "01HZZZZZZZZZZZZZZZZZZZZZ02", kind: "service", text: "Shall we book?", withLink: false };
    expect((await aftercareService.send("w097", "ines", message, "http://yard.test")).state).toBe("waiting");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("waiting");
    nowMs = Date.parse("2026-06-14T08:00:00Z");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("delivered");
  });
});

describe("store time", () => {
  it("is right on both sides of a clock change", () => {
    const at = (date: string, zoneName: string) => new Date(instantOf(date, 600, zoneName)).toISOString();
    expect(at("2026-03-28", "Europe/Lisbon")).toBe("2026-03-28T10:00:00.000Z");
    expect(at("2026-03-29", "Europe/Lisbon")).toBe("2026-03-29T09:00:00.000Z");
    expect(at("2026-11-01", "America/Chicago")).toBe("2026-11-01T16:00:00.000Z");
    expect(at(addDays("2026-11-01", -1), "America/Chicago")).toBe("2026-10-31T15:00:00.000Z");
  });
});
