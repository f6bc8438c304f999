import type { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import * as first from "./migrations/0001-store.ts";
import * as second from "./migrations/0002-any-boat.ts";
import * as third from "./migrations/0003-dock.ts";
import * as fourth from "./migrations/0004-aftercare.ts";
import * as fifth from "./migrations/0005-proof.ts";
import * as sixth from "./migrations/0006-fills.ts";
import * as seventh from "./migrations/0007-record.ts";
import * as eighth from "./migrations/0008-versions.ts";

const migrations = [
  { name: "0001-store", ...first },
  { name: "0002-any-boat", ...second },
  { name: "0003-dock", ...third },
  { name: "0004-aftercare", ...fourth },
  { name: "0005-proof", ...fifth },
  { name: "0006-fills", ...sixth },
  { name: "0007-record", ...seventh },
  { name: "0008-versions", ...eighth },
];

/** Brings the database up to date; answers how many migrations it has had in all. Names are numbered without gaps. */
export async function migrate(sequelize: Sequelize): Promise<number> {
  migrations.forEach(({ name }, i) => {
    const expected = String(i + 1).padStart(4, "0");
    if (!name.startsWith(`${expected}-`)) throw new Error(`migrations: expected number ${expected}, got ${name}`);
  });
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({ name, up: () => up(sequelize) })),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
  await umzug.up();
  return (await umzug.executed()).length;
}
