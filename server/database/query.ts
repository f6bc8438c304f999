import type { Sequelize } from "sequelize";

/** Where a migration asks its questions: on the connection of its own transaction. */
export type Query = Pick<Sequelize, "query">;
