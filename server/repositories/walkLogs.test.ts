import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { toInstant } from "../../core/dates/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import { type Database, openDatabase, type Transaction } from "../database/open.ts";
import { createDeliveries, type Deliveries } from "./deliveries.ts";

let folder: string;
let database: Database;
let deliveries: Deliveries;
let count = 0;
let id = "";

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "ravik-logs-"));
  database = await openDatabase(folder);
  deliveries = createDeliveries(database);
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true });
});
beforeEach(async () => {
  id = `d-${++count}`;
  const boat = { id: `b${count}`, name: "Boat", hull: `H${count}`, rig: "{}", template: null, inService: null };
  await database.models.boats.create({
    ...boat,
    version: 1,
    contact: "{}",
    stock: "",
    color: "",
    callBack: "",
    gearDates: "{}",
  });
  await deliveries.add({
    id,
    boatId: boat.id,
    date: "2026-06-01",
    time: "10:00",
    note: "",
    buyers: [{ id: "b1", name: "Dov Anselm" }],
    planOptions: { ...defaultPlanOptions, style: "sweep" },
    summary: { state: "planned", owed: [] },
  });
});

const note = (text: string): Entry => ({
  id: ulid(),
  delivery: id,
  at: toInstant(Date.now()),
  by: "nessa",
  device: "t",
  kind: "amend",
  note: text,
});
const receipt = { receivedAt: toInstant(0), via: "staff" } as const;
const add = (text: string, t?: Transaction) =>
  t === undefined
    ? database.inTransaction((own) => deliveries.addEntries(id, [note(text)], receipt, own))
    : deliveries.addEntries(id, [note(text)], receipt, t);
const notes = async (t?: Transaction) =>
  (await deliveries.listEntries(id, t)).map((entry) => (entry.kind === "amend" ? entry.note : entry.kind));

describe("the log of a walk", () => {
  it("is read on from where it is known, and is the same object while nothing comes", async () => {
    await add("one");
    const first = await deliveries.readLog(id);
    expect(await deliveries.readLog(id)).toBe(first);
    await add("two");
    expect(await notes()).toEqual(["one", "two"]);
    expect(await notes()).toEqual(["one", "two"]);
    // What was handed out before stays as it was.
    expect(first.entries).toHaveLength(1);
  });

  it("has within a transaction what that wrote, and nothing of it when it came to nothing", async () => {
    await add("stands");
    await notes();
    const failing = database.inTransaction(async (t) => {
      await add("never was", t);
      expect(await notes(t)).toEqual(["stands", "never was"]);
      throw new Error("no");
    });
    await expect(failing).rejects.toThrow("no");
    expect(await notes()).toEqual(["stands"]);
    // The number that was given to it is given again, to another.
    await add("came after");
    expect(await notes()).toEqual(["stands", "came after"]);
  });

  it("is read anew after a strike, which changes what was there", async () => {
    await add("Rafe said so");
    const [entry] = await deliveries.listEntries(id);
    await notes();
    const { sequelize } = database.models.entries;
    await sequelize!.query("INSERT INTO strikes (part, id, deliveryId, at) VALUES ('entry', ?, ?, '2026-06-02')", {
      replacements: [entry!.id, id],
    });
    await database.inTransaction((t) => deliveries.strike(id, [{ part: "entry", id: entry!.id }], "b1", t));
    expect(await notes()).toEqual(["(struck)"]);
    expect((await deliveries.find(id))!.buyers[0]!.name).toBe("(struck)");
  });

  it("that reads slowly does not lose what came meanwhile", async () => {
    await add("one");
    const [slow] = await Promise.all([notes(), add("two"), add("three")]);
    expect(slow[0]).toBe("one");
    expect(await notes()).toEqual(["one", "two", "three"]);
  });
});
