import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { msAt } from "../core/dates/index.ts";
import { demo } from "../demo/demo.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createClock } from "./clock.ts";
import { createServices } from "./createServices.ts";
import { type Database, openDatabase } from "./database/open.ts";
import { createJobs } from "./jobs.ts";

const root = mkdtempSync(join(tmpdir(), "ravik-jobs-"));
let database: Database;
let nowMs = 0;
let folder = "";
let count = 0;
const zone = "UTC";
const clock = createClock(zone, () => nowMs);

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
  const start = () => createServices(database, clock, demo, { origin: () => "http://yard.test" });

  it("asks how it goes two days after a handover, at ten, once", async () => {
    const { aftercareService, jobs } = start();
    await aftercareService.planJobs();
    const planned = (await jobs.list(50)).filter(({ kind, boatId }) => kind === "hello" && boatId === "w112");
    // Handed over the day before.
    expect(planned.map(({ dueAtMs }) => dueAtMs)).toEqual([msAt("2026-06-14", 600, zone)]);
    nowMs = Date.parse("2026-06-14T10:00:30Z");
    await aftercareService.planJobs();
    await jobs.tick();
    await jobs.tick();
    const messages = await aftercareService.listMessages("w112");
    expect(messages).toHaveLength(1);
    expect(messages[0]!.text).toMatch(/^Hello Dov, this is Pellow & Marr.*first days with Wending 23/);
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
    await boats.setContact("w097", { name: "", phone: "555 0177", email: "", optOut: false });
    nowMs = Date.parse("2026-06-13T21:30:00Z");
    const message = { id: "01HZZZZZZZZZZZZZZZZZZZZZ02", kind: "service", text: "Shall we book?", withLink: false };
    expect((await aftercareService.send("w097", "ines", message)).state).toBe("waiting");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("waiting");
    nowMs = Date.parse("2026-06-14T08:00:00Z");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("delivered");
  });

  it("keeps quiet hours for what is overdue too", async () => {
    const { aftercareService, jobs } = start();
    await aftercareService.planJobs();
    // The server was off at ten, and comes back at night.
    nowMs = Date.parse("2026-06-14T22:00:00Z");
    await jobs.tick();
    expect((await aftercareService.listMessages("w112"))[0]!.state).toBe("waiting");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w112"))[0]!.state).toBe("waiting");
    nowMs = Date.parse("2026-06-15T09:00:00Z");
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w112"))[0]!.state).toBe("failed");
  });

  const hold = async (id: string, boat: string, text = "Shall we book?") => {
    const services = start();
    nowMs = Date.parse("2026-06-13T21:30:00Z");
    await services.aftercareService.send(boat, "ines", {
      id,
      kind: "service",
      text,
      withLink: text.includes("{link}"),
    });
    nowMs = Date.parse("2026-06-14T08:00:00Z");
    return services;
  };

  it("does not send what waits to whoever wants no messages any more", async () => {
    const { aftercareService, boats } = await hold("01HZZZZZZZZZZZZZZZZZZZZZ03", "w097");
    await boats.setContact("w097", { name: "", phone: "555 0177", email: "", optOut: true });
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("stopped");
    await boats.setContact("w097", { name: "", phone: "555 0177", email: "", optOut: false });
    await aftercareService.carryOn();
    expect((await aftercareService.listMessages("w097"))[0]!.state).toBe("stopped");
  });

  it("sends the others where one cannot be sent, and says which could not", async () => {
    await hold("01HZZZZZZZZZZZZZZZZZZZZZ04", "w097", "Your page: {link}");
    const { boats } = await hold("01HZZZZZZZZZZZZZZZZZZZZZ05", "w081");
    await boats.setContact("w081", { name: "", phone: "555 0177", email: "", optOut: false });
    const homeless = createServices(database, clock, demo).aftercareService;
    await expect(homeless.carryOn()).rejects.toThrow("no-address");
    expect((await homeless.listMessages("w081"))[0]!.state).toBe("delivered");
    expect((await homeless.listMessages("w097"))[0]!.state).toBe("waiting");
  });

  it("sends once under one number; anything else under it is refused", async () => {
    const { aftercareService } = start();
    const message = { id: "01HZZZZZZZZZZZZZZZZZZZZZ06", kind: "service", text: "Shall we book?", withLink: false };
    for (const _ of [1, 2]) await aftercareService.send("w097", "ines", message);
    expect((await aftercareService.listMessages("w097")).filter(({ id }) => id === message.id)).toHaveLength(1);
    await expect(aftercareService.send("w081", "ines", message)).rejects.toThrow("message-differs");
    await expect(aftercareService.send("w097", "ines", { ...message, text: "Other" })).rejects.toThrow(
      "message-differs",
    );
  });

  it("takes for a contact what reached them, and a note undoes none", async () => {
    const { messages, boats, aftercareService } = start();
    const say = (n: number, kind: string) =>
      aftercareService.send("w112", "ines", { id: `01HZZZZZZZZZZZZZZZZZZZZZ${n}`, kind, text: "x", withLink: false });
    await say(11, "hello");
    await aftercareService.carryOn();
    expect((await messages.listContacts()).get("w112")).toBeUndefined();
    const asked = async () =>
      (await aftercareService.describe()).lines
        .find(({ boat }) => boat === "w112")
        ?.reasons.some(({ reason }) => reason === "first-contact") ?? false;
    nowMs += 3 * 86_400_000;
    expect(await asked()).toBe(true);
    await say(12, "call");
    expect(await asked()).toBe(false);
    nowMs += 60_000;
    await say(13, "note");
    expect(await asked()).toBe(false);
    await boats.setContact("w112", { name: "", phone: "555 0177", email: "", optOut: false });
  });

  it("makes no address where nobody has said where the server is reached", async () => {
    const { ownerService } = createServices(database, clock, null);
    const nessa = { id: "nessa", name: "Nessa" } as never;
    await expect(ownerService.makeLink("d-w097", nessa, { isRemote: false, send: true })).rejects.toThrow("no-address");
    const made = await start().ownerService.makeLink("d-w097", nessa, { isRemote: false, send: false });
    expect(made.address).toBe(`http://yard.test/o/${made.token}`);
  });

  it("goes on with the rest where one step fails, and logs which", async () => {
    const warned: object[] = [];
    const jobs = createJobs(database, clock, { warn: (facts: object) => void warned.push(facts) } as never);
    let ran = 0;
    jobs.on("ring", async () => {
      ran++;
      throw new Error("nobody answers");
    });
    await jobs.plan([job("a")]);
    jobs.start(60_000, {
      planJobs: () => Promise.reject(new Error("no plan")),
      carryOn: async () => {
        ran += 10;
      },
    });
    await vi.waitFor(() => expect(ran).toBe(11));
    await jobs.stop();
    expect(warned).toMatchObject([{ step: "planJobs" }, { job: "a" }]);
    expect(await jobs.countFailed()).toBe(0);
    const after = createJobs(database, clock);
    after.on("ring", () => Promise.reject(new Error("nobody answers")));
    for (let hour = 0; hour < 12; hour++) {
      nowMs += 3_600_000;
      await after.tick();
    }
    expect(await after.countFailed()).toBe(1);
  });

  it("outside the demo sends nothing by itself: a message is ready, taken up whole by somebody, and sent when they say so", async () => {
    const { aftercareService, messages, gateway, jobs } = createServices(database, clock, null, {
      origin: () => "http://yard.test",
    });
    expect([gateway, messages.isCarried]).toEqual([null, false]);
    const id = "01HZZZZZZZZZZZZZZZZZZZZZ20";
    const text = "What does the meter show? {link}";
    const sent = await aftercareService.send("w112", "ines", { id, kind: "ask-hours", text, withLink: true });
    expect(sent.state).toBe("ready");
    await aftercareService.carryOn();
    expect((await messages.listContacts()).get("w112")).toBeUndefined();
    const whole = await aftercareService.prepare("w112", id, "ines");
    expect(whole.text).toMatch(/^What does the meter show\? http:\/\/yard\.test\/o\/\S{20,}$/);
    expect(JSON.stringify(await aftercareService.listMessages("w112"))).not.toContain("/o/");
    await expect(aftercareService.prepare("w097", id, "ines")).rejects.toThrow("not-found");
    await aftercareService.markSent("w112", id);
    expect((await aftercareService.listMessages("w112"))[0]!.state).toBe("sent");
    expect((await messages.listContacts()).get("w112")).toBeDefined();
    await expect(aftercareService.prepare("w112", id, "ines")).rejects.toThrow("not-found");
    // What the server writes by itself waits for somebody too.
    await aftercareService.planJobs();
    nowMs = Date.parse("2026-06-14T10:00:30Z");
    await jobs.tick();
    expect((await aftercareService.listMessages("w112"))[0]).toMatchObject({ kind: "hello", state: "ready" });
  });
});
