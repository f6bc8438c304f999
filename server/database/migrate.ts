import { readdirSync, rmSync, statfsSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { QueryTypes, type Sequelize, Transaction } from "sequelize";
import { Umzug } from "umzug";
import { StartRefused } from "../startRefused.ts";
import * as first from "./migrations/0001-store.ts";
import * as second from "./migrations/0002-any-boat.ts";
import * as third from "./migrations/0003-dock.ts";
import * as fourth from "./migrations/0004-aftercare.ts";
import * as fifth from "./migrations/0005-proof.ts";
import * as sixth from "./migrations/0006-fills.ts";
import * as seventh from "./migrations/0007-record.ts";
import * as eighth from "./migrations/0008-versions.ts";
import * as ninth from "./migrations/0009-logs.ts";
import * as tenth from "./migrations/0010-people.ts";
import * as eleventh from "./migrations/0011-typed.ts";
import * as twelfth from "./migrations/0012-calls.ts";
import * as thirteenth from "./migrations/0013-towing.ts";
import * as fourteenth from "./migrations/0014-languages.ts";
import * as fifteenth from "./migrations/0015-yard.ts";
import * as sixteenth from "./migrations/0016-calendar.ts";
import * as seventeenth from "./migrations/0017-boat-lists.ts";
import * as eighteenth from "./migrations/0018-forget.ts";
import * as nineteenth from "./migrations/0019-handed-out.ts";
import * as twentieth from "./migrations/0020-waiting.ts";
import * as twentyFirst from "./migrations/0021-offsets.ts";
import * as twentySecond from "./migrations/0022-imports.ts";
import * as twentyThird from "./migrations/0023-handover-versions.ts";
import * as twentyFourth from "./migrations/0024-pins.ts";
import * as twentyFifth from "./migrations/0025-plans.ts";
import * as twentySixth from "./migrations/0026-told.ts";
import type { Query } from "./query.ts";

const migrations = [
  { name: "0001-store", ...first },
  { name: "0002-any-boat", ...second },
  { name: "0003-dock", ...third },
  { name: "0004-aftercare", ...fourth },
  { name: "0005-proof", ...fifth },
  { name: "0006-fills", ...sixth },
  { name: "0007-record", ...seventh },
  { name: "0008-versions", ...eighth },
  { name: "0009-logs", ...ninth },
  { name: "0010-people", ...tenth },
  { name: "0011-typed", ...eleventh },
  { name: "0012-calls", ...twelfth },
  { name: "0013-towing", ...thirteenth },
  { name: "0014-languages", ...fourteenth },
  { name: "0015-yard", ...fifteenth },
  { name: "0016-calendar", ...sixteenth },
  { name: "0017-boat-lists", ...seventeenth },
  { name: "0018-forget", ...eighteenth },
  { name: "0019-handed-out", ...nineteenth },
  { name: "0020-waiting", ...twentieth },
  { name: "0021-offsets", ...twentyFirst },
  { name: "0022-imports", ...twentySecond },
  { name: "0023-handover-versions", ...twentyThird },
  { name: "0024-pins", ...twentyFourth },
  { name: "0025-plans", ...twentyFifth },
  { name: "0026-told", ...twentySixth },
];

/** Before a store is changed a copy is kept; the room that is wanted for it, as a share of the store's size. */
const roomShare = 1.3;

interface MigrateOptions {
  /** The store's file, to keep a copy of before it is changed; none is kept of one that is being made. */
  readonly file: string;
  readonly isNew: boolean;
}

/**
 * Brings the database up to date; answers how many migrations it has had in all. Names are numbered without gaps. Each runs
 * in one transaction with the note that it ran. Throws, in words, for a store of a newer program, and where there is no room
 * for the copy.
 */
export async function migrate(sequelize: Sequelize, { file, isNew }: MigrateOptions): Promise<number> {
  migrations.forEach(({ name }, i) => {
    const expected = String(i + 1).padStart(4, "0");
    if (!name.startsWith(`${expected}-`)) throw new Error(`migrations: expected number ${expected}, got ${name}`);
  });
  await sequelize.query("CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)");
  const listDone = async () => {
    const rows = await sequelize.query<{ name: string }>("SELECT name FROM migrations ORDER BY name", {
      type: QueryTypes.SELECT,
    });
    return rows.map(({ name }) => name);
  };
  const done = await listDone();
  const unknown = done.find((name) => !migrations.some((each) => each.name === name));
  if (unknown !== undefined)
    throw new StartRefused(
      `this store was written by a newer Ravik (it has had "${unknown}"): start that version, or restore a copy from before it`,
    );
  if (!isNew && done.length > 0 && done.length < migrations.length) await keepCopy(sequelize, file, done.at(-1)!);
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({
      name,
      up: () =>
        sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
          const query = ((sql: string, options: object = {}) =>
            sequelize.query(sql, { ...options, transaction })) as Query["query"];
          await up({ query });
          await query("INSERT INTO migrations (name) VALUES (?)", { replacements: [name] });
        }),
    })),
    // The note that it ran is in the transaction above.
    storage: { executed: listDone, logMigration: async () => undefined, unlogMigration: async () => undefined },
    logger: undefined,
  });
  await umzug.up();
  return migrations.length;
}

/** `ravik-before-0008.sqlite` beside the store, whole as it is. One copy is kept: that of the last change. */
async function keepCopy(sequelize: Sequelize, file: string, last: string) {
  const folder = dirname(file);
  const next = String(Number(last.slice(0, 4)) + 1).padStart(4, "0");
  const copy = join(folder, `ravik-before-${next}.sqlite`);
  const { bavail, bsize } = statfsSync(folder);
  const wanted = statSync(file).size * roomShare;
  if (bavail * bsize < wanted)
    throw new StartRefused(
      `there is no room for a copy of the store before it is changed: ${Math.ceil(wanted / 1e6)} MB are wanted in ${folder}. Make room, then start again`,
    );
  for (const name of readdirSync(folder)) if (/^ravik-before-\d{4}\.sqlite$/.test(name)) rmSync(join(folder, name));
  await sequelize.query("VACUUM INTO ?", { replacements: [copy] });
}
