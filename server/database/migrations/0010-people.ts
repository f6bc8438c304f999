import type { Query } from "../query.ts";

const statements = [
  // What scrypt was told when the hash was made; those from before this had no choice.
  `ALTER TABLE users ADD COLUMN cost TEXT NOT NULL DEFAULT '{"N":16384,"r":8,"p":1}'`,
  // Somebody who has left keeps their past and opens nothing.
  "ALTER TABLE users ADD COLUMN isOff INTEGER NOT NULL DEFAULT 0",
  // A second factor (RFC 6238): its secret in base 32, the step used last, hashes of the recovery codes that are left.
  "ALTER TABLE users ADD COLUMN second TEXT",
  "ALTER TABLE users ADD COLUMN secondStep INTEGER NOT NULL DEFAULT 0",
  "ALTER TABLE users ADD COLUMN recovery TEXT NOT NULL DEFAULT '[]'",
  "ALTER TABLE users ADD COLUMN needsSecond INTEGER NOT NULL DEFAULT 0",
  // Everybody signs in anew: the old ones know neither when they began nor where.
  "DROP TABLE sessions",
  `CREATE TABLE sessions (
    tokenHash TEXT PRIMARY KEY, id TEXT NOT NULL UNIQUE, userId TEXT NOT NULL REFERENCES users(id), device TEXT NOT NULL,
    deviceId TEXT, beganAtMs INTEGER NOT NULL, seenAtMs INTEGER NOT NULL, idleMs INTEGER NOT NULL, endsAtMs INTEGER NOT NULL)`,
  "CREATE INDEX sessions_user ON sessions(userId)",
  // A code or link that opens once: to join the store, or to set a new password.
  `CREATE TABLE invites (
    codeHash TEXT PRIMARY KEY, id TEXT NOT NULL UNIQUE, userId TEXT REFERENCES users(id), name TEXT NOT NULL,
    role TEXT NOT NULL, by TEXT NOT NULL, at TEXT NOT NULL, endsAtMs INTEGER NOT NULL, usedAt TEXT)`,
  // Tablets that several people may stay signed in on.
  `CREATE TABLE devices (
    tokenHash TEXT PRIMARY KEY, id TEXT NOT NULL UNIQUE, name TEXT NOT NULL, by TEXT NOT NULL, at TEXT NOT NULL,
    endedAt TEXT)`,
  `CREATE TABLE audit (
    number INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, by TEXT NOT NULL, name TEXT NOT NULL, kind TEXT NOT NULL,
    what TEXT NOT NULL, about TEXT NOT NULL)`,
  "CREATE TRIGGER audit_kept BEFORE UPDATE ON audit BEGIN SELECT RAISE(ABORT, 'audit is only added to'); END",
  "CREATE TRIGGER audit_whole BEFORE DELETE ON audit BEGIN SELECT RAISE(ABORT, 'audit is only added to'); END",
  // An owner's page ends when nobody has opened it for long.
  "ALTER TABLE ownerLinks ADD COLUMN usedAt TEXT",
  "UPDATE ownerLinks SET usedAt = madeAt",
];

/** People: how they sign in, where they are signed in, who let them in, and what was done in whose name. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
