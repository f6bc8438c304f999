import { createServer, type Server } from "node:http";
import { dirname, join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { type Logger, pino } from "pino";
import packageJson from "../package.json" with { type: "json" };
import { createApp } from "./app.ts";
import { type Clock, createClock, createGivenClock } from "./clock.ts";
import type { Config } from "./config.ts";
import { createServices, type Demo } from "./createServices.ts";
import { openDatabase } from "./database/open.ts";
import { passWhileStuck } from "./failure.ts";
import { databaseFile } from "./keeping/backupFolder.ts";
import { createKeeper, noKeeper } from "./keeping/keeper.ts";
import { lockFolder } from "./lockFolder.ts";
import { createPressWorker, type Press } from "./pdf/press.ts";
import { createPlanWorker, type Planner } from "./planning/planner.ts";
import { createHeads } from "./sealHeads.ts";
import { createHashWorker } from "./signIn/hasher.ts";
import type { Hasher } from "./signIn/passwords.ts";
import { openStoreKey } from "./storeKey.ts";

const jobsEveryMs = 20_000;

// Left to itself the heap may grow to several times what is in use before it is cleared; a dealer's machine is small.
setFlagsFromString("--heap-growing-percent=30");

/** The command beside this program makes them. */
const keepBackups = (dataFolder: string, to: string, clock: Clock, log: Logger) =>
  createKeeper({
    dataFolder,
    to,
    clock,
    log,
    command: [process.execPath, join(dirname(process.argv[1]!), "backup.js")],
  });

/** Threads that work for a store: plans, passwords, papers. */
export interface Workers {
  readonly planner: Planner;
  readonly hasher: Hasher;
  readonly press: Press;
}

export interface RunningStore {
  readonly port: number;
  /** What sets a new store up; null of one that is set up. */
  readonly code: string | null;
  /** No new requests, those under way are answered, then the database is closed. Asked again it changes nothing. */
  stop(): Promise<void>;
}

/**
 * Opens the store that `config` names, listens, and does by itself what is to be done. `demo`: null for a real store. `shared`: threads that
 * somebody else ends. Failure: `StartRefused`; what `listen` refuses.
 */
export async function startStore(
  config: Config,
  demo: Demo | null,
  shared: Workers | null = null,
): Promise<RunningStore> {
  const log = pino({ level: config.logLevel });
  const unlock = await lockFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder);
  let address: string | null = null;
  const workers = shared ?? { planner: createPlanWorker(), hasher: createHashWorker(), press: createPressWorker() };
  const clock =
    config.givenNow === null ? createClock(config.timeZone) : createGivenClock(config.timeZone, config.givenNow);
  const keeper =
    config.backupFolder === null ? noKeeper : keepBackups(config.dataFolder, config.backupFolder, clock, log);
  const storeKey = openStoreKey(config.dataFolder);
  const services = createServices(database, clock, demo, {
    keeper,
    origin: () => address,
    ...workers,
    storeKey,
    onSealed: () => {
      void noteHeads();
    },
    log,
  });
  const heads = createHeads(config.dataFolder, services.chain, storeKey, () => clock.now());
  // On a disk that takes nothing the store still opens, to be read: what is not noted now is at the next seal or start.
  const noteHeads = () =>
    heads.complete().catch((error: unknown) => log.error({ error }, "the heads of the seal chain are not noted"));
  await database.inTransaction((t) => services.chain.announceKey(clock.now(), t)).catch(passWhileStuck);
  await noteHeads();
  await services.highWater.open(config.dataFolder);
  const code = await services.setUpService.begin();
  await services.handoverService.mendSummaries();
  await services.handoverService.resume();
  let doneOn = "";
  /** Once a day and at every start: old snapshots go, and what is kept for a time only. */
  async function doDaily() {
    const today = services.clock.today();
    if (today === doneOn) return;
    await services.handoverService.removeOldSnapshots();
    await services.retentionService.keepRules();
    doneOn = today;
  }
  /** Takes its time beside all else; how it went is on the owner's screen. */
  async function doBackup() {
    keeper.runIfDue().catch((error: unknown) => log.error({ err: error }, "no backup could be begun"));
  }

  const app = createApp(services, {
    version: packageJson.version,
    webFolder: config.webFolder,
    hasProxy: config.hasProxy,
    log,
  });

  const server = createServer(app.callback());
  const port = await listen(server, config);
  // Outside the demo only the address somebody has set: what a browser says of it may be anybody's.
  address = config.publicAddress ?? (demo === null ? null : `http://${config.host}:${port}`);
  const { planJobs, carryOn } = services.aftercareService;
  services.jobs.start(jobsEveryMs, { daily: doDaily, backup: doBackup, planJobs, carryOn });
  log.info({ port }, "ready");
  // Beside all else: a page of the file that is damaged shows otherwise only once it is read.
  services.soundness.look(join(config.dataFolder, databaseFile)).catch((error: unknown) => {
    log.error({ error }, "the store's file could not be looked through");
  });

  const stop = async () => {
    log.info("stopping");
    const jobsDone = services.jobs.stop();
    const closed = new Promise((resolve) => server.close(resolve));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 5000).unref();
    await closed;
    await jobsDone;
    keeper.close();
    await noteHeads();
    services.highWater.close();
    const { planner, hasher, press } = workers;
    const own = shared === null ? [planner.close(), hasher.close(), press.close()] : [];
    await Promise.all([...own, database.close()]);
    await unlock();
  };
  let stopped: Promise<void> | null = null;
  return {
    port,
    code,
    stop() {
      stopped ??= stop();
      return stopped;
    },
  };
}

/** Answers the port; rejects with what the network says, `EADDRINUSE` where it is taken. */
function listen(server: Server, { port, host }: Config): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, host, () => {
      server.off("error", reject);
      const bound = server.address();
      resolve(typeof bound === "object" && bound !== null ? bound.port : port);
    });
  });
}
