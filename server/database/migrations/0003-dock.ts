import { createHash } from "node:crypto";
import { QueryTypes } from "sequelize";
import { firstLink, writeLink } from "../../../core/record/index.ts";
import type { Query } from "../query.ts";

const hash = (content: string | Buffer) => createHash("sha256").update(content).digest("hex");

const statements = [
  // Every seal this store has made or taken in, in order; nothing is ever changed or taken out of it.
  `CREATE TABLE chain (
    number INTEGER PRIMARY KEY AUTOINCREMENT, deliveryId TEXT NOT NULL REFERENCES deliveries(id), kind TEXT NOT NULL,
    sha256 TEXT NOT NULL, previous TEXT NOT NULL, link TEXT NOT NULL, canonical TEXT NOT NULL, at TEXT NOT NULL)`,
  `CREATE INDEX chain_delivery ON chain(deliveryId)`,
  // A handover is sealed once, however many ask for it at once.
  `CREATE UNIQUE INDEX chain_once ON chain(deliveryId) WHERE kind IN ('handover', 'import')`,
  // The private address an owner has: only its token's hash is kept.
  `CREATE TABLE ownerLinks (
    tokenHash TEXT PRIMARY KEY, deliveryId TEXT NOT NULL REFERENCES deliveries(id), madeAt TEXT NOT NULL,
    by TEXT NOT NULL, isRemote INTEGER NOT NULL, endedAt TEXT)`,
  `CREATE INDEX ownerLinks_delivery ON ownerLinks(deliveryId)`,
  // What the stand-in for text messages was given to send.
  `CREATE TABLE outbox (
    id TEXT PRIMARY KEY, deliveryId TEXT NOT NULL REFERENCES deliveries(id), recipient TEXT NOT NULL, text TEXT NOT NULL,
    at TEXT NOT NULL, state TEXT NOT NULL)`,
  `CREATE INDEX entries_photo ON entries(json_extract(body, '$.photo')) WHERE json_extract(body, '$.kind') = 'photo'`,
  `ALTER TABLE photos ADD COLUMN sha256 TEXT NOT NULL DEFAULT ''`,
];
const guards = [
  `CREATE TRIGGER chain_kept BEFORE UPDATE ON chain BEGIN SELECT RAISE(ABORT, 'the seal chain is only added to'); END`,
  `CREATE TRIGGER chain_whole BEFORE DELETE ON chain BEGIN SELECT RAISE(ABORT, 'the seal chain is only added to'); END`,
];

/** The dock: the seal chain in place of single seals, owner links, the outbox, photos known by hash. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
  const seals = await sequelize.query<{ deliveryId: string; sha256: string; sealedAt: string; canonical: string }>(
    "SELECT * FROM seals ORDER BY sealedAt, deliveryId",
    { type: QueryTypes.SELECT },
  );
  let previous = firstLink;
  for (const { deliveryId, sha256, sealedAt, canonical } of seals) {
    const link = hash(writeLink(previous, sha256));
    await sequelize.query(
      "INSERT INTO chain (deliveryId, kind, sha256, previous, link, canonical, at) VALUES (?, 'handover', ?, ?, ?, ?, ?)",
      { replacements: [deliveryId, sha256, previous, link, canonical, sealedAt] },
    );
    previous = link;
  }
  await sequelize.query("DROP TABLE seals");
  const photos = await sequelize.query<{ id: string; large: Buffer }>("SELECT id, large FROM photos", {
    type: QueryTypes.SELECT,
  });
  for (const { id, large } of photos)
    await sequelize.query("UPDATE photos SET sha256 = ? WHERE id = ?", { replacements: [hash(large), id] });
  for (const guard of guards) await sequelize.query(guard);
  // What Today reads of a handover is kept in another form now; it is worked out anew when first asked for.
  await sequelize.query("UPDATE deliveries SET summary = ''");
}
