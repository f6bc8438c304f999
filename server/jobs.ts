import type { Logger } from "pino";
import { Op } from "sequelize";
import { cutText } from "../core/text/index.ts";
import type { Clock } from "./clock.ts";
import type { JobRow } from "./database/models.ts";
import type { Database, Transaction } from "./database/open.ts";
import { readAll } from "./database/rows.ts";

/** What a job does, within the transaction that marks it done: both are kept or neither. Answers a note of what came of it. */
export type JobWork = (job: Pick<JobRow, "id" | "kind" | "boatId">, transaction: Transaction) => Promise<string>;

export interface NewJob {
  /** Says what and for whom; planned again under the same id it stays one job. */
  readonly id: string;
  readonly kind: string;
  readonly boatId: string;
  readonly dueAtMs: number;
}

const mostTries = 5;
const retryMs = 10 * 60_000;
const mostAtOnce = 50;

/**
 * What the server does by itself and when: kept in the database, so that a restart forgets nothing; each done once, for
 * its work and its mark are one transaction. A job that fails is tried again, later each time, then left as failed. While
 * `isHeld` none is done.
 */
export function createJobs(
  { models, inTransaction }: Database,
  clock: Clock,
  log?: Pick<Logger, "warn">,
  isHeld: () => Promise<boolean> = async () => false,
) {
  const works = new Map<string, JobWork>();
  let timer: NodeJS.Timeout | null = null;
  let looking: Promise<void> = Promise.resolve();
  let isStopped = false;
  const nowIso = () => clock.now();
  const runOne = async (job: JobRow) => {
    const work = works.get(job.kind);
    if (work === undefined) return;
    try {
      await inTransaction(async (transaction) => {
        const [still] = await readAll(models.jobs, { where: { id: job.id, state: "waiting" } }, transaction);
        if (still === undefined) return;
        const note = await work(job, transaction);
        await models.jobs.update({ state: "done", note, doneAt: nowIso() }, { where: { id: job.id }, transaction });
      });
    } catch (error) {
      const tries = job.tries + 1;
      const state = tries >= mostTries ? "failed" : "waiting";
      const note = cutText((error as Error).message, 200);
      log?.warn({ job: job.id, err: error }, "job failed");
      const dueAtMs = clock.nowMs() + retryMs * 2 ** job.tries;
      await inTransaction(async (transaction) => {
        await models.jobs.update({ tries, state, note, dueAtMs }, { where: { id: job.id }, transaction });
      });
    }
  };
  return {
    on(kind: string, work: JobWork) {
      works.set(kind, work);
    },
    async plan(planned: readonly NewJob[]) {
      const known = new Set(
        (await readAll(models.jobs, { where: { id: { [Op.in]: planned.map(({ id }) => id) } } })).map(({ id }) => id),
      );
      const fresh = planned
        .filter(({ id }) => !known.has(id))
        .map((job) => ({ ...job, state: "waiting", tries: 0, note: "", doneAt: null }));
      if (fresh.length === 0) return;
      await inTransaction(async (transaction) => {
        await models.jobs.bulkCreate(fresh, { ignoreDuplicates: true, transaction });
      });
    },
    /** Does what is due; answers how many were tried. */
    async tick(): Promise<number> {
      if (await isHeld()) return 0;
      const due = await readAll(models.jobs, {
        where: { state: "waiting", dueAtMs: { [Op.lte]: clock.nowMs() } },
        order: ["dueAtMs", "id"],
        limit: mostAtOnce,
      });
      for (const job of due) {
        if (isStopped) break;
        await runOne(job);
      }
      return due.length;
    },
    /** The next ones and the last ones, for people to see. */
    async list(most: number): Promise<JobRow[]> {
      const waiting = await readAll(models.jobs, {
        where: { state: { [Op.ne]: "done" } },
        order: ["dueAtMs"],
        limit: most,
      });
      const done = await readAll(models.jobs, { where: { state: "done" }, order: [["doneAt", "DESC"]], limit: most });
      return [...waiting, ...done];
    },
    /** Those that wait and fell due by now. */
    listDue: () =>
      readAll(models.jobs, {
        where: { state: "waiting", dueAtMs: { [Op.lte]: clock.nowMs() } },
        order: ["dueAtMs", "id"],
      }),
    /** What fell due by now is not done any more; `note` says why. */
    async leaveOut(note: string, transaction: Transaction) {
      const where = { state: "waiting", dueAtMs: { [Op.lte]: clock.nowMs() } };
      await models.jobs.update({ state: "done", note, doneAt: nowIso() }, { where, transaction });
    },
    countFailed: () => models.jobs.count({ where: { state: "failed" } }),
    /** Looks every so often, one look after the other. What fails of `also` is logged by its name and holds up nothing else. */
    start(everyMs: number, also: Readonly<Record<string, () => Promise<unknown>>>) {
      isStopped = false;
      const lookOnce = async () => {
        for (const [name, work] of Object.entries({ ...also, tick: () => this.tick() }))
          await work().catch((error: unknown) => log?.warn({ err: error, step: name }, "failed by itself"));
        if (timer !== null) timer = setTimeout(look, everyMs).unref();
      };
      const look = () => {
        looking = lookOnce();
      };
      timer = setTimeout(look, 0).unref();
    },
    /** No further look; resolves when the one under way has come to the end of its job. */
    async stop() {
      isStopped = true;
      if (timer !== null) clearTimeout(timer);
      timer = null;
      await looking;
    },
  };
}

export type Jobs = ReturnType<typeof createJobs>;
