import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterAll, expect, it } from "vitest";
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
  const person = { id: "a", login: "a", name: "A", role: "sales", salt: "00", hash: "00" };
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
  expect(second.migrationsRun).toBe(8);
  expect((await second.models.settings.findByPk("kept"))?.get("value")).toBe("1");
  await second.close();
});
