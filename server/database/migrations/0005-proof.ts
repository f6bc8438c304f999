import type { Query } from "../query.ts";

const statements = [
  // Files that show what was done elsewhere: kept as they came, known by what they are and by hash.
  "CREATE TABLE files (id TEXT PRIMARY KEY, type TEXT NOT NULL, sha256 TEXT NOT NULL, bytes BLOB NOT NULL, at TEXT NOT NULL, by TEXT NOT NULL)",
  "ALTER TABLE services ADD COLUMN file TEXT",
  "ALTER TABLE services ADD COLUMN fileName TEXT",
];

/** A service may be shown by a file, not by a photo alone. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
