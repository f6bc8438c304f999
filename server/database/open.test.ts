import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes, Sequelize } from "sequelize";
import { afterAll, describe, expect, it } from "vitest";
import { lockFolder } from "../lockFolder.ts";
import { openDatabase } from "./open.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-db-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

it("sets every connection, those of transactions too, to survive a kill", async () => {
  const database = await openDatabase(folder);
  const { sequelize } = database.models.users;
  const settings = await database.inTransaction(async (transaction) => {
    const read = async (name: string) => {
      const rows = await sequelize!.query(`PRAGMA ${name}`, { transaction, type: QueryTypes.SELECT });
      return Object.values(rows[0]!)[0];
    };
    return {
      journal: await read("journal_mode"),
      synchronous: await read("synchronous"),
      keys: await read("foreign_keys"),
    };
  });
  expect(settings).toEqual({ journal: "wal", synchronous: 2, keys: 1 });
  await database.close();
});

it("keeps nothing of a transaction that fails", async () => {
  const database = await openDatabase(folder);
  const person = {
    ...{ id: "a", login: "a", name: "A", role: "sales", salt: "00", hash: "00", cost: "{}" },
    ...{ isOff: 0, second: null, secondStep: 0, recovery: "[]", needsSecond: 0, language: "en" },
  };
  await expect(
    database.inTransaction(async (transaction) => {
      await database.models.users.create(person, { transaction });
      throw new Error("no");
    }),
  ).rejects.toThrow("no");
  expect(await database.models.users.count()).toBe(0);
  await database.close();
});

it("lets a single write wait its turn among transactions, so that none of them finds the database busy", async () => {
  const database = await openDatabase(folder);
  const done: string[] = [];
  const keep = (key: string) => database.models.settings.create({ key, value: "1" }).then(() => done.push(key));
  const hold = (key: string) =>
    database.inTransaction(async (transaction) => {
      await database.models.settings.create({ key, value: "1" }, { transaction });
      await new Promise((resolve) => setImmediate(resolve));
      done.push(key);
    });
  await Promise.all([hold("a"), keep("b"), hold("c"), keep("d"), hold("e")]);
  expect(done).toEqual(["a", "b", "c", "d", "e"]);
  expect(await database.models.settings.destroy({ where: {} })).toBe(5);
  await database.close();
});

it("opens again what it made, without running a migration twice", async () => {
  const first = await openDatabase(folder);
  await first.models.settings.create({ key: "kept", value: "1" });
  await first.close();
  const second = await openDatabase(folder);
  expect(second.migrationsRun).toBe(26);
  expect((await second.models.settings.findByPk("kept"))?.get("value")).toBe("1");
  await second.close();
});

it("refuses at once a write that forgets the transaction it stands in, instead of waiting for it for ever", async () => {
  const database = await openDatabase(folder);
  const forgetful = database.inTransaction(() => database.models.settings.create({ key: "x", value: "1" }));
  await expect(forgetful).rejects.toThrow("must be given that transaction");
  await expect(database.inTransaction(() => database.inTransaction(async () => 1))).rejects.toThrow("must be given");
  expect(await database.models.settings.count({ where: { key: "x" } })).toBe(0);
  await database.close();
});

describe("a store's file", () => {
  const open = (content: Buffer | null) => {
    const own = mkdtempSync(join(folder, "own-"));
    if (content !== null) writeFileSync(join(own, "ravik.sqlite"), content);
    return { own, opened: openDatabase(own) };
  };

  it("is never taken for a new one when it is empty or somebody else's", async () => {
    await expect(open(Buffer.alloc(0)).opened).rejects.toThrow("is no store of Ravik's");
    await expect(open(Buffer.from("no database at all, but a letter to somebody")).opened).rejects.toThrow("no store");
    const { own, opened } = open(null);
    await (await opened).close();
    expect(readdirSync(own)).toContain("ravik.sqlite");
    expect(readdirSync(own).some((name) => name.includes(".part"))).toBe(false);
  });

  it("of a newer program is refused in words", async () => {
    const { own, opened } = open(null);
    const database = await opened;
    await database.models.users.sequelize!.query("INSERT INTO migrations (name) VALUES ('9999-to-come')");
    await database.close();
    await expect(openDatabase(own)).rejects.toThrow(/newer Ravik.*9999-to-come/);
  });

  it("of an older one is copied before it is changed, and a migration that fails leaves nothing of itself", async () => {
    const { own, opened } = open(null);
    const database = await opened;
    const { sequelize } = database.models.users;
    // As before the last migration: it finds its own triggers there and fails in the middle.
    await sequelize!.query("DELETE FROM migrations WHERE name >= '0017'");
    await database.close();
    await expect(openDatabase(own)).rejects.toThrow(/already exists/);
    expect(readdirSync(own)).toContain("ravik-before-0017.sqlite");
    const copy = new Sequelize({ dialect: "sqlite", storage: join(own, "ravik-before-0017.sqlite"), logging: false });
    const [rows] = await copy.query("SELECT COUNT(*) AS n FROM migrations");
    expect(rows).toEqual([{ n: 16 }]);
    await copy.close();
    await expect(openDatabase(own)).rejects.toThrow(/already exists/);
  });
});

it("a folder is one server's alone, until it stops", async () => {
  const unlock = await lockFolder(folder);
  await expect(lockFolder(folder)).rejects.toThrow(/another Ravik runs/);
  await unlock();
  await (await lockFolder(folder))();
});
