import { createServer } from "node:http";
import { dirname, join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { type Logger, pino } from "pino";
import packageJson from "../package.json" with { type: "json" };
import { createApp } from "./app.ts";
import { type Clock, createClock, createGivenClock } from "./clock.ts";
import { readConfig } from "./config.ts";
import { createServices, type Demo } from "./createServices.ts";
import { openDatabase } from "./database/open.ts";
import { createKeeper, noKeeper } from "./keeping/keeper.ts";
import { lockFolder } from "./lockFolder.ts";
import { createPressWorker } from "./pdf/press.ts";
import { createPlanWorker } from "./planning/planner.ts";
import { keepHead } from "./sealHeads.ts";
import { createHashWorker } from "./signIn/hasher.ts";
import { StartRefused } from "./startRefused.ts";
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

/** What whoever started it reads in the terminal: how to begin. Said anew at every start until somebody has. */
function sayNewStore(address: string, code: string) {
  console.log(`\nThis store is new. Open ${address}/set-up and type this code:\n\n    ${code}\n`);
}

/**
 * Opens the store, listens, does by itself what is to be done, and ends well when it is told to. `demo`: null for a real store.
 * `takesGivenNow`: whether RAVIK_NOW may set its clock. Failure: `StartRefused`.
 */
export async function runServer(demo: Demo | null, { takesGivenNow = demo !== null } = {}): Promise<void> {
  const config = readConfig(process.env);
  if (config.givenNow !== null && !takesGivenNow)
    throw new StartRefused("RAVIK_NOW is for tests and the demo: a store goes by the wall clock. Start without it");
  const log = pino({ level: config.logLevel });

  const unlock = await lockFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder);
  let address: string | null = null;
  const planner = createPlanWorker();
  const hasher = createHashWorker();
  const press = createPressWorker();
  const clock =
    config.givenNow === null ? createClock(config.timeZone) : createGivenClock(config.timeZone, config.givenNow);
  const keeper =
    config.backupFolder === null ? noKeeper : keepBackups(config.dataFolder, config.backupFolder, clock, log);
  const services = createServices(database, clock, demo, {
    keeper,
    origin: () => address,
    planner,
    hasher,
    press,
    storeKey: openStoreKey(config.dataFolder),
    log,
  });
  const code = await services.setUpService.begin();
  await services.handoverService.mendSummaries();
  await services.handoverService.resume();
  let doneOn = "";
  /** Once a day and at every start: the head of the seal chain is kept outside the database, old snapshots go. */
  async function doDaily() {
    const today = services.clock.today();
    if (today === doneOn) return;
    await keepHead(config.dataFolder, services.chain, today);
    await services.handoverService.removeOldSnapshots();
    await services.retentionService.keepRules();
    doneOn = today;
  }
  /** Takes its time beside all else; how it went is on the owner's screen. */
  async function doBackup() {
    void keeper.runIfDue();
  }

  const app = createApp(services, {
    version: packageJson.version,
    webFolder: config.webFolder,
    hasProxy: config.hasProxy,
    log,
  });

  const server = createServer(app.callback());
  server.once("error", (error: NodeJS.ErrnoException) => {
    if (error.code !== "EADDRINUSE") throw error;
    console.error(`ravik: port ${config.port} is taken: stop what listens there, or start this one with another PORT`);
    process.exit(1);
  });
  server.listen(config.port, config.host, () => {
    const bound = server.address();
    const port = typeof bound === "object" && bound !== null ? bound.port : config.port;
    // Outside the demo only the address somebody has set: what a browser says of it may be anybody's.
    address = config.publicAddress ?? (demo === null ? null : `http://${config.host}:${port}`);
    const { planJobs, carryOn } = services.aftercareService;
    services.jobs.start(jobsEveryMs, { daily: doDaily, backup: doBackup, planJobs, carryOn });
    log.info({ port }, "ready");
    if (code !== null) sayNewStore(`http://${config.host}:${port}`, code);
    process.send?.({ ready: true, port });
  });

  /** No new requests, those under way are answered, then the database is closed. */
  let isStopping = false;
  function stop() {
    // A terminal sends the signal to the whole group and npm may pass it on: the second is not news.
    if (isStopping) return;
    isStopping = true;
    log.info("stopping");
    const jobsDone = services.jobs.stop();
    server.close(() => {
      void jobsDone
        .then(() => Promise.all([planner.close(), hasher.close(), press.close(), database.close()]))
        .then(unlock)
        .then(() => process.exit(0));
    });
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 5000).unref();
  }
  process.on("SIGTERM", stop);
  process.on("SIGINT", stop);
}
