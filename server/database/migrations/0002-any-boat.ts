import type { Query } from "../query.ts";

const statements = [
  // Who comes, where and how long: JSON of the walk's wishes beside the style. Empty means none were made.
  `ALTER TABLE deliveries ADD COLUMN wishes TEXT NOT NULL DEFAULT '{}'`,
  // The rig template a boat was described from.
  `ALTER TABLE boats ADD COLUMN template TEXT`,
  // Goes up with every save of the rig, so that two people do not overwrite each other.
  `ALTER TABLE boats ADD COLUMN version INTEGER NOT NULL DEFAULT 1`,
  `CREATE INDEX boats_hull ON boats(hull)`,
  `CREATE TABLE templates (id TEXT PRIMARY KEY, name TEXT NOT NULL, rig TEXT NOT NULL, at TEXT NOT NULL)`,
  `CREATE TABLE photos (
    id TEXT PRIMARY KEY, at TEXT NOT NULL, by TEXT NOT NULL, width INTEGER NOT NULL, height INTEGER NOT NULL,
    large BLOB NOT NULL, small BLOB NOT NULL)`,
  // The store's own wording of a topic, and what the shipped one was when it was edited.
  `CREATE TABLE topicEdits (
    id TEXT PRIMARY KEY, body TEXT NOT NULL, basis TEXT, by TEXT NOT NULL, at TEXT NOT NULL)`,
];

/** Any boat: plan wishes, rig templates, the store's own topics. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
