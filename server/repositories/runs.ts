import { gunzipSync, gzipSync } from "node:zlib";
import { literal, Op } from "sequelize";
import type { RunLine } from "../../api/index.ts";
import type { LimitPhase } from "../../core/breakin/index.ts";
import type { Instant } from "../../core/dates/index.ts";
import type { Told } from "../../core/language/index.ts";
import type { RunRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

/** What was judged: the samples and the limits that held then. */
export interface Trace {
  readonly samples: [number, number][];
  readonly limits: LimitPhase[];
  /** Coolant in °C against seconds. Runs kept before it was taken have none. */
  readonly temperatures?: [number, number][];
}
type Boated = RunLine & { readonly boatId: string };

const columns = [
  "id",
  "boatId",
  "engine",
  "date",
  "startMin",
  "source",
  "fileName",
  "hoursBefore",
  "verdict",
  "by",
  "at",
];

/** Runs kept before sentences were kept apart from what stands in them have whole ones. */
function readVerdict(text: string): RunLine["verdict"] {
  const verdict = JSON.parse(text) as RunLine["verdict"];
  const read = (said: Told | string): Told => (typeof said === "string" ? { phrase: said, values: [] } : said);
  const breaches = verdict.breaches.map((breach) => ({ ...breach, says: read(breach.says) }));
  return { ...verdict, breaches, advice: verdict.advice.map(read) } as RunLine["verdict"];
}

const standing = { id: { [Op.notIn]: literal("(SELECT id FROM withdrawals WHERE kind = 'run')") } };

/** Runs as they were judged, those aside that were withdrawn; the trace apart, for it is large. */
export function createRuns({ models }: Database) {
  const toRun = ({ verdict, trace: _, at: __, ...row }: RunRow): Boated =>
    ({ ...row, verdict: readVerdict(verdict) }) as Boated;
  return {
    async listOf(boatIds: readonly string[], transaction?: Transaction): Promise<Boated[]> {
      const where = { boatId: { [Op.in]: [...boatIds] }, ...standing };
      const order: [string, string][] = [
        ["date", "ASC"],
        ["startMin", "ASC"],
        ["id", "ASC"],
      ];
      return (await readAll(models.runs, { where, order, attributes: columns }, transaction)).map(toRun);
    },
    async listAll(): Promise<Boated[]> {
      return (await readAll(models.runs, { where: standing, order: ["date", "id"], attributes: columns })).map(toRun);
    },
    async find(id: string): Promise<{ run: Boated; trace: Trace } | null> {
      const row = await readOne(models.runs, id);
      if (row === null) return null;
      return { run: toRun(row), trace: JSON.parse(gunzipSync(row.trace).toString("utf8")) as Trace };
    },
    async add(run: Boated, trace: Trace, at: Instant, transaction: Transaction) {
      const row = { ...run, verdict: JSON.stringify(run.verdict), trace: gzipSync(JSON.stringify(trace)), at };
      await models.runs.create(row, { transaction });
    },
  };
}

export type Runs = ReturnType<typeof createRuns>;
