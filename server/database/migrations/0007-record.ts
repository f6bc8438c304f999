import { QueryTypes } from "sequelize";
import type { Query } from "../query.ts";

const statements = [
  // What walks go by, each known by the SHA-256 of its canonical text; kept packed (gzip). isUsed: an entry names it.
  `CREATE TABLE snapshots (
    sha256 TEXT PRIMARY KEY, deliveryId TEXT NOT NULL REFERENCES deliveries(id), body BLOB NOT NULL, at TEXT NOT NULL,
    isUsed INTEGER NOT NULL DEFAULT 0)`,
  "CREATE INDEX snapshots_delivery ON snapshots(deliveryId)",
  "CREATE INDEX snapshots_unused ON snapshots(at) WHERE isUsed = 0",
  // What the walk goes by; null before it begins.
  "ALTER TABLE deliveries ADD COLUMN snapshot TEXT",
  // What the store knows of an entry and its author does not: when it came, as which, and by which kind of link.
  "ALTER TABLE entries ADD COLUMN receivedAt TEXT",
  "ALTER TABLE entries ADD COLUMN number INTEGER",
  "ALTER TABLE entries ADD COLUMN via TEXT NOT NULL DEFAULT 'staff'",
  "UPDATE entries SET number = rowid",
  // Until now the walk stood only on pages made for a remote handover.
  `UPDATE entries SET via = CASE json_extract(body, '$.kind') WHEN 'remote' THEN 'remote' ELSE 'owner' END
    WHERE json_extract(body, '$.by') = 'owner'`,
  "CREATE INDEX entries_number ON entries(number)",
  // Closings that are not sealed yet are looked for at every start.
  "CREATE INDEX entries_close ON entries(deliveryId) WHERE json_extract(body, '$.kind') = 'close'",
  // The bytes the device sent, by hash; and of an imported sealed record the bytes as they came, which screens do not show.
  "ALTER TABLE photos ADD COLUMN sent TEXT",
  "ALTER TABLE photos ADD COLUMN original BLOB",
  // What the salted hashes of a seal are of, beside what stands in other tables.
  `CREATE TABLE contents (
    number INTEGER PRIMARY KEY, deliveryId TEXT NOT NULL REFERENCES deliveries(id), body TEXT NOT NULL)`,
  // Whose data may be struck: only what is named here may ever be changed.
  "CREATE TABLE strikes (part TEXT NOT NULL, id TEXT NOT NULL, deliveryId TEXT NOT NULL, at TEXT NOT NULL, PRIMARY KEY (part, id, deliveryId))",
  "ALTER TABLE chain ADD COLUMN key TEXT",
  "ALTER TABLE chain ADD COLUMN signature TEXT",
];

const refuse = (why: string) => `BEGIN SELECT RAISE(ABORT, '${why}'); END`;
/** Insert with an id that is there would replace it (`INSERT OR REPLACE` fires no trigger of deletion). */
const once = (table: string, key: string) =>
  `CREATE TRIGGER ${table}_once BEFORE INSERT ON ${table}
    WHEN EXISTS (SELECT 1 FROM ${table} WHERE ${key} = NEW.${key}) ${refuse(`${table}: stored once`)}`;
const guards = [
  once("chain", "number"),
  `CREATE TRIGGER chain_sealed_once BEFORE INSERT ON chain
    WHEN NEW.kind IN ('handover', 'import')
      AND EXISTS (SELECT 1 FROM chain WHERE deliveryId = NEW.deliveryId AND kind IN ('handover', 'import'))
    ${refuse("chain: a handover is sealed once")}`,
  once("entries", "id"),
  `CREATE TRIGGER entries_kept BEFORE UPDATE ON entries
    WHEN NOT EXISTS (SELECT 1 FROM strikes WHERE part = 'entry' AND id = OLD.id AND deliveryId = OLD.deliveryId)
    ${refuse("entries are only added")}`,
  `CREATE TRIGGER entries_whole BEFORE DELETE ON entries ${refuse("entries are only added")}`,
  once("photos", "id"),
  `CREATE TRIGGER photos_kept BEFORE UPDATE ON photos
    WHEN NOT EXISTS (SELECT 1 FROM strikes WHERE part = 'photo' AND id = OLD.id) ${refuse("photos are only added")}`,
  `CREATE TRIGGER photos_whole BEFORE DELETE ON photos ${refuse("photos are only added")}`,
  once("contents", "number"),
  `CREATE TRIGGER contents_kept BEFORE UPDATE ON contents
    WHEN NOT EXISTS (SELECT 1 FROM strikes WHERE deliveryId = OLD.deliveryId) ${refuse("what is sealed is kept")}`,
  `CREATE TRIGGER contents_whole BEFORE DELETE ON contents ${refuse("what is sealed is kept")}`,
];

/** The record: snapshots, what is known of an entry beside it, salted contents of seals, and guards that let nothing change. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
  await mendTexts(sequelize);
  for (const guard of guards) await sequelize.query(guard);
}

/** Half a surrogate pair has no UTF-8, and what holds one could never be sealed. */
const mend = (value: unknown): unknown => {
  if (typeof value === "string") return value.replace(/\p{Surrogate}/gu, "\ufffd");
  if (Array.isArray(value)) return value.map(mend);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, mend(inner)]));
};

async function mendTexts(sequelize: Query) {
  for (const [table, column, besides] of [
    ["entries", "body", "AND deliveryId NOT IN (SELECT deliveryId FROM chain)"],
    ["topicEdits", "body", ""],
    ["boats", "rig", ""],
    ["templates", "rig", ""],
  ] as const) {
    // As JSON writes it, if only half is there.
    const rows = await sequelize.query<{ id: string; body: string }>(
      `SELECT id, ${column} AS body FROM ${table} WHERE ${column} GLOB '*\\ud[89a-fA-F]*' ${besides}`,
      { type: QueryTypes.SELECT },
    );
    for (const { id, body } of rows)
      await sequelize.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, {
        replacements: [JSON.stringify(mend(JSON.parse(body))), id],
      });
  }
}
