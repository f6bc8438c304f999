import type { Query } from "../query.ts";

const refuse = (why: string) => `BEGIN SELECT RAISE(ABORT, '${why}'); END`;
const isPermitted = (part: string, row: string) =>
  `EXISTS (SELECT 1 FROM strikes WHERE part = '${part}' AND id = CAST(${row}.number AS TEXT))`;
const isOther = (columns: readonly string[]) =>
  columns.map((column) => `OLD.${column} IS NOT NEW.${column}`).join(" OR ");

const statements = [
  // Of a record of the first format names can be struck only out of its text; hashes, links and signatures stay.
  "DROP TRIGGER chain_kept",
  `CREATE TRIGGER chain_kept BEFORE UPDATE ON chain
    WHEN NOT ${isPermitted("record", "OLD")}
      OR ${isOther(["number", "deliveryId", "kind", "sha256", "previous", "link", "at", "key", "signature"])}
    ${refuse("the seal chain is only added to")}`,
  // A line of the log may name a buyer who is to be forgotten: who did what and when stays.
  "DROP TRIGGER audit_kept",
  `CREATE TRIGGER audit_kept BEFORE UPDATE ON audit
    WHEN NOT ${isPermitted("audit", "OLD")} OR ${isOther(["number", "at", "by", "name", "kind", "what"])}
    ${refuse("audit is only added to")}`,
  // Old lines go only by the owner's rule, and only those before the day it names.
  "DROP TRIGGER audit_whole",
  `CREATE TRIGGER audit_whole BEFORE DELETE ON audit
    WHEN OLD.at >= COALESCE((SELECT json_extract(value, '$.logFrom') FROM settings WHERE key = 'retention'), '')
    ${refuse("audit is only added to")}`,
  `CREATE INDEX entries_owed ON entries(number)
    WHERE json_extract(body, '$.kind') IN ('assign', 'call', 'promise', 'settle', 'snag', 'undo')`,
];

/**
 * What a buyer who is to be forgotten is struck from besides: old records, the log; how old lines of the log go; and what is
 * owed, with its end, among all entries, found without reading the others.
 */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
