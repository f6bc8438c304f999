import type { Query } from "../query.ts";

const refuse = "BEGIN SELECT RAISE(ABORT, 'what was taken in is only added to'); END";
const statements = [
  `CREATE TABLE imports (
    number INTEGER PRIMARY KEY,
    deliveryId TEXT NOT NULL,
    by TEXT NOT NULL,
    at TEXT NOT NULL,
    verdict TEXT NOT NULL,
    key TEXT,
    proof TEXT NOT NULL
  )`,
  "CREATE INDEX imports_delivery ON imports(deliveryId)",
  `CREATE TRIGGER imports_kept BEFORE UPDATE ON imports ${refuse}`,
  `CREATE TRIGGER imports_whole BEFORE DELETE ON imports ${refuse}`,
  `CREATE TRIGGER imports_once BEFORE INSERT ON imports
    WHEN EXISTS (SELECT 1 FROM imports WHERE number = NEW.number) ${refuse}`,
];

/** Of handovers taken in from other stores: by whom, how they were checked, and the other store's own signatures. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
