import type { Query } from "../query.ts";

const statements = [
  `CREATE TABLE handouts (
    deliveryId TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    at TEXT NOT NULL,
    PRIMARY KEY (deliveryId, sha256)
  )`,
  "CREATE INDEX handouts_snapshot ON handouts(sha256)",
  // What was handed out before was noted of its first taker alone: '' stands for any handover of the same hull.
  "INSERT INTO handouts SELECT '', sha256, at FROM snapshots",
  "INSERT OR IGNORE INTO handouts SELECT deliveryId, sha256, at FROM snapshots",
  "INSERT OR IGNORE INTO handouts SELECT id, snapshot, '' FROM deliveries WHERE snapshot IS NOT NULL",
  `INSERT OR IGNORE INTO handouts
    SELECT DISTINCT deliveryId, json_extract(body, '$.snapshot'), '' FROM entries
    WHERE json_extract(body, '$.snapshot') IS NOT NULL`,
];

/** Which snapshot was handed out to which handover: a walk goes by one of these and by no other. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
