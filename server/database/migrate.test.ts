import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes, Sequelize } from "sequelize";
import sqlite3 from "sqlite3";
import { afterAll, expect, it } from "vitest";
import { up as first } from "./migrations/0001-store.ts";
import { up as second } from "./migrations/0002-any-boat.ts";
import { up as third } from "./migrations/0003-dock.ts";
import { up as fourth } from "./migrations/0004-aftercare.ts";
import { up as fifth } from "./migrations/0005-proof.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-migrate-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const hash = (content: string | Buffer) => createHash("sha256").update(content).digest("hex");

it("0003 brings the seals of version 2 into the chain in their order, and knows old photos by hash", async () => {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    dialectModule: sqlite3,
    storage: join(folder, "old.sqlite"),
    logging: false,
  });
  await first(sequelize);
  await second(sequelize);
  await sequelize.query("INSERT INTO boats (id, name, hull, rig) VALUES ('b', 'Boat', 'H', '{}')");
  for (const [id, sealedAt] of [
    ["d-late", "2026-05-02T10:00:00.000Z"],
    ["d-early", "2026-05-01T10:00:00.000Z"],
  ]) {
    await sequelize.query(
      "INSERT INTO deliveries (id, boatId, date, time, note, buyers, style, summary, owed) VALUES (?, 'b', '2026-05-01', '10:00', '', '[]', 'sweep', '{}', 0)",
      { replacements: [id] },
    );
    await sequelize.query("INSERT INTO seals (deliveryId, sha256, sealedAt, canonical) VALUES (?, ?, ?, ?)", {
      replacements: [id, hash(id!), sealedAt, id],
    });
  }
  const large = Buffer.from([1, 2, 3]);
  await sequelize.query(
    "INSERT INTO photos (id, at, by, width, height, large, small) VALUES ('p', '', '', 1, 1, ?, ?)",
    { replacements: [large, large] },
  );
  await third(sequelize);
  const read = (sql: string) => sequelize.query<Record<string, string>>(sql, { type: QueryTypes.SELECT });
  const chain = await read("SELECT * FROM chain ORDER BY number");
  expect(chain.map(({ deliveryId, sha256 }) => [deliveryId, sha256])).toEqual([
    ["d-early", hash("d-early")],
    ["d-late", hash("d-late")],
  ]);
  expect(chain[0]!.link).toBe(hash(`${"0".repeat(64)}${hash("d-early")}`));
  expect(chain[1]).toMatchObject({ previous: chain[0]!.link, link: hash(`${chain[0]!.link}${hash("d-late")}`) });
  expect(await read("SELECT sha256 FROM photos")).toEqual([{ sha256: hash(large) }]);
  await sequelize.close();
});

it("0004 and 0005 keep the readings, services and messages of version 3, and says of those that fell that a slip was before", async () => {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    dialectModule: sqlite3,
    storage: join(folder, "dock.sqlite"),
    logging: false,
  });
  for (const up of [first, second, third]) await up(sequelize);
  const run = (sql: string) => sequelize.query(sql);
  const read = (sql: string) => sequelize.query<Record<string, unknown>>(sql, { type: QueryTypes.SELECT });
  await run("INSERT INTO boats (id, name, hull, rig) VALUES ('b', 'Boat', 'H', '{}')");
  await run(
    "INSERT INTO deliveries (id, boatId, date, time, note, buyers, style, summary, owed) VALUES ('d', 'b', '2026-05-01', '10:00', '', '[]', 'sweep', '{}', 0)",
  );
  await run(
    "INSERT INTO readings (id, boatId, engine, date, hours, reason, by) VALUES ('r1', 'b', 'main', '2026-05-01', 9, NULL, 'n'), ('r2', 'b', 'main', '2026-06-01', 4, 'typed wrong', 'n')",
  );
  await run(
    "INSERT INTO services (id, boatId, engine, item, date, hours, by) VALUES ('s', 'b', 'main', 'annual', '2026-06-01', 4, 'i')",
  );
  await run(
    "INSERT INTO outbox (id, deliveryId, recipient, text, at, state) VALUES ('m', 'd', 'Dov', 'Done.', '2026-06-02', 'sent')",
  );
  await fourth(sequelize);
  expect(await read("SELECT id, source, answer FROM readings ORDER BY id")).toEqual([
    { id: "r1", source: "phone", answer: null },
    { id: "r2", source: "phone", answer: "typing-slip" },
  ]);
  expect(await read("SELECT outcome, note, priceCents FROM services")).toEqual([
    { outcome: "done", note: "", priceCents: null },
  ]);
  expect(await read("SELECT id, boatId, kind, text, state, answer FROM outbox")).toEqual([
    { id: "m", boatId: "b", kind: "note", text: "Done.", state: "sent", answer: null },
  ]);
  expect(await read("SELECT contact FROM boats")).toEqual([{ contact: "{}" }]);
  await fifth(sequelize);
  expect(await read("SELECT id, file, fileName FROM services")).toEqual([{ id: "s", file: null, fileName: null }]);
  await sequelize.close();
});
