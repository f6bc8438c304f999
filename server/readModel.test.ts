import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { rigTemplates, servicePacks } from "../content/index.ts";
import { toInstant } from "../core/dates/index.ts";
import type { ReadingRow } from "./database/models.ts";
import { type Database, openDatabase } from "./database/open.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";
import { createReadModel, createReadModels, createSingleFlight, createVersions } from "./readModel.ts";
import { createBoats } from "./repositories/boats.ts";

let database: Database;
let folder: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "ravik-model-"));
  database = await openDatabase(folder);
});
afterEach(async () => {
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});
const later = () => new Promise((resolve) => setTimeout(resolve, 20));
const setStore = (value: string) => database.models.settings.upsert({ key: "store", value });
const readStore = async () => (await database.models.settings.findByPk("store"))?.get("value") as string | undefined;
const addBoat = (id: string) => createBoats(database).add({ id, name: id, hull: id, rig: rigTemplates["wending-23"] });

describe("versions", () => {
  it("go up with every write of a boat and what belongs to it, within its transaction, and with nothing else", async () => {
    const versions = createVersions(database);
    await addBoat("a");
    await addBoat("b");
    const boats = createBoats(database);
    const numberOf = async (id: string) => (await versions.read()).get("boat")!.get(id)!;
    const b = await numberOf("b");
    const writes: (() => Promise<unknown>)[] = [
      () => boats.setContact("a", { name: "Ana", phone: "", email: "", optOut: false }),
      () => database.inTransaction((t) => boats.setInService("a", "2026-05-01", t)),
      () => database.models.readings.create({ ...reading, id: "r1", boatId: "a" }),
      () => database.models.fills.create({ id: "f1", boatId: "a", date: "2026-05-02", litres: 9, isFull: 1, by: "n" }),
    ];
    let before = await numberOf("a");
    for (const write of writes) {
      await write();
      const after = await numberOf("a");
      expect(after).toBeGreaterThan(before);
      before = after;
    }
    await expect(
      database.inTransaction(async (t) => {
        await boats.setInService("a", "2026-06-01", t);
        throw new Error("no");
      }),
    ).rejects.toThrow("no");
    expect(await numberOf("a")).toBe(before);
    expect(await numberOf("b")).toBe(b);
    // They stand in the database: after a restart they go on.
    expect((await createVersions(database).read()).get("boat")!.get("a")).toBe(before);
  });
});
const reading: Omit<ReadingRow, "id" | "boatId"> = {
  engine: "port",
  date: "2026-05-01",
  hours: 1,
  reason: null,
  by: "n",
  source: "phone",
  answer: null,
  photo: null,
};

describe("single flight", () => {
  it("does the work once for all who ask at once, and again for whoever asks while it runs", async () => {
    let runs = 0;
    const read = createSingleFlight(async () => {
      const mine = ++runs;
      await later();
      return mine;
    });
    const first = read();
    const [second, third] = [read(), read()];
    expect(await Promise.all([first, second, third])).toEqual([1, 2, 2]);
    expect(runs).toBe(2);
  });

  it("tries anew after a failure", async () => {
    let runs = 0;
    const read = createSingleFlight(async () => {
      if (++runs === 1) throw new Error("once");
      return runs;
    });
    const both = await Promise.allSettled([read(), read()]);
    expect(both.map(({ status }) => status)).toEqual(["rejected", "fulfilled"]);
  });
});

describe("a read model", () => {
  it("answers two first reads at once with the same, neither of them empty", async () => {
    await setStore("a");
    const model = createReadModel(createVersions(database), { settings: ["store"], make: readStore });
    const [one, other] = await Promise.all([model(), model()]);
    expect([one.value, other.value]).toEqual(["a", "a"]);
  });

  it("never keeps what a slow read found before a write", async () => {
    await setStore("old");
    let isFirst = true;
    const model = createReadModel(createVersions(database), {
      settings: ["store"],
      async make() {
        const found = await readStore();
        if (isFirst) await later();
        isFirst = false;
        return found;
      },
    });
    const slow = model();
    await new Promise((resolve) => setTimeout(resolve, 5));
    await setStore("new");
    expect((await model()).value).toBe("new");
    await slow;
    expect((await model()).value).toBe("new");
  });

  it("is made anew when what it names has changed, and not for anything else", async () => {
    await setStore("a");
    let made = 0;
    const model = createReadModel(createVersions(database), { settings: ["packs"], make: async () => ++made });
    await model();
    await setStore("b");
    await addBoat("x");
    expect((await model()).value).toBe(1);
    await database.models.packs.create({ id: "p", kind: "service", body: "{}", version: 1, by: "n", at: toInstant(0) });
    expect((await model()).value).toBe(2);
  });
});

describe("read models of many", () => {
  it("make anew only those of which something was written, and drop what is gone; earlier answers stay as they were", async () => {
    for (let i = 0; i < 600; i++) await database.models.boats.create(boatRow(`b${i}`));
    const asked: string[][] = [];
    let made = 0;
    const models = createReadModels<number>(createVersions(database), {
      kind: "boat",
      key: async () => "day",
      async make(ids) {
        asked.push([...ids]);
        made++;
        return new Map(ids.filter((id) => id !== "b7").map((id) => [id, made]));
      },
    });
    const first = await models();
    expect(first.size).toBe(599);
    expect(asked.flat()).toHaveLength(600);
    asked.length = 0;
    await createBoats(database).setContact("b3", { name: "Ana", phone: "", email: "", optOut: false });
    const second = await models();
    expect(asked).toEqual([["b3"]]);
    expect([second.size, first.get("b3") === second.get("b3")]).toEqual([599, false]);
  }, 30_000);

  it("take in what changes while they are made", async () => {
    await addBoat("a");
    const boats = createBoats(database);
    let isFirst = true;
    const models = createReadModels<string>(createVersions(database), {
      kind: "boat",
      key: async () => "day",
      async make() {
        const found = (await boats.find("a"))!.contact;
        if (isFirst) {
          isFirst = false;
          await boats.setContact("a", { name: "Meanwhile", phone: "", email: "", optOut: false });
        }
        return new Map([["a", found]]);
      },
    });
    await models();
    expect((await models()).get("a")).toContain("Meanwhile");
  });
});
const boatRow = (id: string) => ({
  id,
  name: id,
  hull: id,
  rig: "{}",
  template: null,
  inService: null,
  version: 1,
  contact: "{}",
  stock: "",
  color: "",
  callBack: "",
  gearDates: "{}",
});

describe("what falls due", () => {
  let store: TestStore;
  beforeAll(async () => {
    store = await openTestStore();
  }, 60_000);
  afterAll(() => store.stop());
  const due = async (id: string) =>
    (await store.services.fleetCare.read()).find(({ boat }) => boat.id === id)!.facts.next!.due;

  it("follows a pack and a boat sheet at once, on every boat", async () => {
    const { packService, fleetCare, boats } = store.services;
    const before = await due("w097");
    const outboard = servicePacks.find(({ id }) => id === "outboard-20-100")!;
    const items = outboard.items.map((item) => (item.id === "first-service" ? { ...item, firstH: 10 } : item));
    await packService.set(outboard.id, "service", { ...outboard, items }, "odile");
    const after = await due("w097");
    expect(after.dueDate! < before.dueDate!).toBe(true);
    await packService.remove(outboard.id);
    expect(await due("w097")).toEqual(before);
    const boat = (await boats.find("w097"))!;
    const rig = store.services.rigService.read(boat.rigText);
    const kickers = rig.engines.map((engine) => ({ ...engine, servicePack: "outboard-25-100" }));
    await store.database.inTransaction((t) => boats.setRig("w097", { ...boat, rig: { ...rig, engines: kickers } }, t));
    const [changed] = (await fleetCare.read()).filter(({ boat: { id } }) => id === "w097");
    expect(changed!.facts.next!.due.targetH).not.toBe(before.targetH);
  });
});
