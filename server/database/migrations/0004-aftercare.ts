import type { Query } from "../query.ts";

const statements = [
  // Where a reading came from, what was answered about one that did not follow, and its photo.
  "ALTER TABLE readings ADD COLUMN source TEXT NOT NULL DEFAULT 'phone'",
  "ALTER TABLE readings ADD COLUMN answer TEXT",
  "ALTER TABLE readings ADD COLUMN photo TEXT",
  // A reading that fell was kept with a reason in words; the later one counted, as for a slip before it.
  "UPDATE readings SET answer = 'typing-slip' WHERE reason IS NOT NULL",
  "ALTER TABLE services ADD COLUMN outcome TEXT NOT NULL DEFAULT 'done'",
  "ALTER TABLE services ADD COLUMN note TEXT NOT NULL DEFAULT ''",
  "ALTER TABLE services ADD COLUMN photo TEXT",
  "ALTER TABLE services ADD COLUMN priceCents INTEGER",
  // Whom to write to about a boat, and whether they want it.
  "ALTER TABLE boats ADD COLUMN contact TEXT NOT NULL DEFAULT '{}'",
  `CREATE TABLE runs (
    id TEXT PRIMARY KEY, boatId TEXT NOT NULL REFERENCES boats(id), engine TEXT NOT NULL, date TEXT NOT NULL,
    startMin INTEGER NOT NULL, source TEXT NOT NULL, fileName TEXT NOT NULL, hoursBefore REAL NOT NULL, verdict TEXT NOT NULL,
    trace BLOB NOT NULL, by TEXT NOT NULL, at TEXT NOT NULL)`,
  "CREATE INDEX runs_boat ON runs(boatId, date)",
  "CREATE TABLE packs (id TEXT PRIMARY KEY, kind TEXT NOT NULL, body TEXT NOT NULL, version INTEGER NOT NULL, by TEXT NOT NULL, at TEXT NOT NULL)",
  `CREATE TABLE bookings (
    id TEXT PRIMARY KEY, boatId TEXT NOT NULL REFERENCES boats(id), date TEXT NOT NULL, startMin INTEGER NOT NULL,
    labourH REAL NOT NULL, items TEXT NOT NULL, note TEXT NOT NULL, state TEXT NOT NULL, by TEXT NOT NULL, at TEXT NOT NULL)`,
  "CREATE INDEX bookings_date ON bookings(date)",
  // What the server does by itself, each once: the id says what and for whom.
  `CREATE TABLE jobs (
    id TEXT PRIMARY KEY, kind TEXT NOT NULL, boatId TEXT NOT NULL REFERENCES boats(id), dueAtMs INTEGER NOT NULL,
    state TEXT NOT NULL, tries INTEGER NOT NULL, note TEXT NOT NULL, doneAt TEXT)`,
  "CREATE INDEX jobs_due ON jobs(state, dueAtMs)",
  // Messages belong to a boat; one that was handed over before this store kept records has no delivery.
  "ALTER TABLE outbox RENAME TO outbox3",
  `CREATE TABLE outbox (
    id TEXT PRIMARY KEY, deliveryId TEXT REFERENCES deliveries(id), boatId TEXT NOT NULL REFERENCES boats(id),
    kind TEXT NOT NULL, recipient TEXT NOT NULL, text TEXT NOT NULL, at TEXT NOT NULL, state TEXT NOT NULL, answer TEXT)`,
  `INSERT INTO outbox (id, deliveryId, boatId, kind, recipient, text, at, state)
    SELECT o.id, o.deliveryId, d.boatId, 'note', o.recipient, o.text, o.at, o.state
    FROM outbox3 o JOIN deliveries d ON d.id = o.deliveryId`,
  "DROP TABLE outbox3",
  "CREATE INDEX outbox_boat ON outbox(boatId, at)",
];

/** The months after: runs, packs of the store's own, services with proof, bookings, what the server does by itself. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
