import type { Query } from "../query.ts";

/** What was written last, by kind and id: everything that is worked out from the store knows by it when it is out of date. */
const table = [
  "CREATE TABLE versions (kind TEXT NOT NULL, id TEXT NOT NULL, number INTEGER NOT NULL, PRIMARY KEY (kind, id)) WITHOUT ROWID",
  "CREATE UNIQUE INDEX versions_number ON versions(number)",
  // A reading, run, fill or service that was entered wrong: it stays, with why it no longer counts and what does instead.
  `CREATE TABLE withdrawals (
    kind TEXT NOT NULL, id TEXT NOT NULL, boatId TEXT NOT NULL REFERENCES boats(id), reason TEXT NOT NULL, by TEXT NOT NULL,
    at TEXT NOT NULL, instead TEXT, PRIMARY KEY (kind, id))`,
  "CREATE INDEX withdrawals_boat ON withdrawals(boatId)",
];

/** Numbers go up with every write of whatever kind, within its transaction; none is given twice. */
const raise = (kind: string, id: string) =>
  `INSERT INTO versions (kind, id, number)
    VALUES ('${kind}', ${id}, (SELECT COALESCE(MAX(number), 0) + 1 FROM versions))
    ON CONFLICT (kind, id) DO UPDATE SET number = excluded.number;`;

/** Which table's rows belong to what: a boat's care, or one kind of setting. */
const raisedBy: readonly (readonly [string, string, (row: string) => string])[] = [
  ["boats", "boat", (row) => `${row}.id`],
  ["readings", "boat", (row) => `${row}.boatId`],
  ["fills", "boat", (row) => `${row}.boatId`],
  ["services", "boat", (row) => `${row}.boatId`],
  ["runs", "boat", (row) => `${row}.boatId`],
  ["withdrawals", "boat", (row) => `${row}.boatId`],
  ["packs", "setting", () => "'packs'"],
  ["topicEdits", "setting", () => "'topics'"],
  ["settings", "setting", () => "'store'"],
];

const triggers = raisedBy.flatMap(([name, kind, idOf]) =>
  (["INSERT", "UPDATE", "DELETE"] as const).map(
    (event) =>
      `CREATE TRIGGER ${name}_version_${event.toLowerCase()} AFTER ${event} ON ${name}
        BEGIN ${raise(kind, idOf(event === "DELETE" ? "OLD" : "NEW"))} END`,
  ),
);

/** Versions, raised by the database itself; what was withdrawn; no stored day on which a boat falls due any more. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of [...table, ...triggers]) await sequelize.query(statement);
  await sequelize.query("DROP INDEX boats_due");
  await sequelize.query("ALTER TABLE boats DROP COLUMN dueDate");
  await sequelize.query(
    "INSERT INTO versions (kind, id, number) SELECT 'boat', id, ROW_NUMBER() OVER (ORDER BY id) FROM boats",
  );
}
