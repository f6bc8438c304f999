import type { Query } from "../query.ts";

/** Calls and questions among all entries, found without reading the others. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query(
    "CREATE INDEX entries_calls ON entries(number) WHERE json_extract(body, '$.kind') IN ('call', 'ask')",
  );
}
