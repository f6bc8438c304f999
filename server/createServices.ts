import type { Logger } from "pino";
import type { Clock } from "./clock.ts";
import type { Database } from "./database/open.ts";
import type { Forecaster } from "./forecaster.ts";
import type { Gateway } from "./gateway.ts";
import { createJobs } from "./jobs.ts";
import { createEpochs } from "./keeping/epoch.ts";
import { createHighWater } from "./keeping/highWater.ts";
import { type Keeper, noKeeper } from "./keeping/keeper.ts";
import { createSoundness } from "./keeping/soundness.ts";
import { type Carrier, createMessages } from "./messages.ts";
import { createNewsService } from "./news.ts";
import { type Press, pressHere } from "./pdf/press.ts";
import { type Planner, planHere } from "./planning/planner.ts";
import { createRates } from "./rates.ts";
import { createVersions } from "./readModel.ts";
import { createAudit } from "./repositories/audit.ts";
import { createBoats } from "./repositories/boats.ts";
import { createBookings } from "./repositories/bookings.ts";
import { createBuyers } from "./repositories/buyers.ts";
import { createChain } from "./repositories/chain.ts";
import { createDeliveries } from "./repositories/deliveries.ts";
import { createFiles } from "./repositories/files.ts";
import { createImports } from "./repositories/imports.ts";
import { createOwnerLinks } from "./repositories/ownerLinks.ts";
import { createPeople } from "./repositories/people.ts";
import { createPhotos } from "./repositories/photos.ts";
import { createReportTables } from "./repositories/reports.ts";
import { createRuns } from "./repositories/runs.ts";
import { createSessions } from "./repositories/sessions.ts";
import { createSettings } from "./repositories/settings.ts";
import { createSnapshots } from "./repositories/snapshots.ts";
import { createTemplates } from "./repositories/templates.ts";
import { createTopicEdits } from "./repositories/topicEdits.ts";
import { createTowing } from "./repositories/towing.ts";
import { createWithdrawals } from "./repositories/withdrawals.ts";
import { createAftercareService } from "./services/aftercareService.ts";
import { createBoatService } from "./services/boatService.ts";
import { createBundleService } from "./services/bundleService.ts";
import { createBuyerService } from "./services/buyerService.ts";
import { createCalendarService } from "./services/calendarService.ts";
import { createCareEntryService } from "./services/careEntryService.ts";
import { createCareReader } from "./services/careReader.ts";
import { createDockCallService } from "./services/dockCallService.ts";
import { createFleetCare } from "./services/fleetCare.ts";
import { createHandoverService } from "./services/handoverService.ts";
import { createLanguageService } from "./services/languageService.ts";
import { createLibraryService } from "./services/libraryService.ts";
import { createOwnerService } from "./services/ownerService.ts";
import { createPackService } from "./services/packService.ts";
import { createReportService } from "./services/reportService.ts";
import { createRestoredService } from "./services/restoredService.ts";
import { createRetentionService } from "./services/retentionService.ts";
import { createRigService } from "./services/rigService.ts";
import { createRunService } from "./services/runService.ts";
import { createSealing } from "./services/sealing.ts";
import { createSetUpService } from "./services/setUpService.ts";
import { createSheetService } from "./services/sheetService.ts";
import { createSignInService } from "./services/signInService.ts";
import { createStaffService } from "./services/staffService.ts";
import { createStrikeService } from "./services/strikeService.ts";
import { createTowingService } from "./services/towingService.ts";
import { createWalkReader } from "./services/walkReader.ts";
import { createWalksInHand } from "./services/walksInHand.ts";
import { createWorkshopService } from "./services/workshopService.ts";
import { type Hasher, hashHere, type ScryptCost, usualCost } from "./signIn/passwords.ts";
import { createPins } from "./signIn/pins.ts";
import { createStoreAddress } from "./storeAddress.ts";
import { createStoreKey, type StoreKey } from "./storeKey.ts";
import { createStreams } from "./streamNews.ts";
import { createTurns } from "./turns.ts";

/** So many large bodies, papers and photos may wait for the one before them; and so many of them for one who asks. */
const mostLargeWaiting = 8;
const mostPapersWaiting = 40;
const mostPhotosWaiting = 60;
const mostOfOne = 4;
/** A tablet comes back from the dock with a walk's photos and sends two at a time; two tablets of one person are four. */
const mostPhotosOfOne = 8;

export interface DemoAccount {
  login: string;
  password: string;
  name: string;
  role: string;
}

/** What only the demo has: accounts that are shown on the sign-in screen, and pretended services outside. */
export interface Demo {
  readonly accounts: readonly DemoAccount[];
  /** What a password's hash costs where passwords are no secret. */
  readonly passwordCost: ScryptCost;
  readonly carrier: Carrier;
  readonly gateway: Gateway;
  readonly forecaster: Forecaster;
}

export interface ServiceOptions {
  /** Where this server is reached; null where nobody has said. */
  readonly origin?: () => string | null;
  readonly log?: Pick<Logger, "warn">;
  readonly planner?: Planner;
  readonly storeKey?: StoreKey;
  readonly hasher?: Hasher;
  readonly press?: Press;
  /** Makes backups; without one none are made. */
  readonly keeper?: Keeper;
  /** Called once something that was sealed is on disk. */
  readonly onSealed?: () => void;
  /** A demo is being made, whose past is told story by story. */
  readonly tellsPast?: boolean;
  /** What a password's hash may cost; tests and demos, whose passwords are no secret, take less. */
  readonly passwordCost?: ScryptCost;
}

/** Everything the routes need, wired once. `demo` is null outside the demo. */
export function createServices(
  database: Database,
  clock: Clock,
  demo: Demo | null,
  {
    origin: fixedOrigin = () => null,
    planner = planHere,
    storeKey = createStoreKey(),
    hasher = hashHere,
    press = pressHere,
    keeper = noKeeper,
    passwordCost: cost = demo?.passwordCost ?? usualCost,
    onSealed = () => undefined,
    tellsPast = false,
    log,
  }: ServiceOptions = {},
) {
  const storeAddress = createStoreAddress(fixedOrigin);
  const origin = storeAddress.find;
  const versions = createVersions(database);
  const people = createPeople(database);
  const sessions = createSessions(database, people);
  const pins = createPins({ sessions, storeKey, clock });
  const audit = createAudit(database);
  const boats = createBoats(database);
  const deliveries = createDeliveries(database, (number) => highWater.note(number));
  const settings = createSettings(database, versions);
  const rigService = createRigService(planner);
  const topicEdits = createTopicEdits(database);
  const templates = createTemplates(database);
  const photos = createPhotos(database);
  const files = createFiles(database);
  const chain = createChain(database, storeKey, { onAdded: onSealed, tellsPast });
  const imports = createImports(database);
  const snapshots = createSnapshots(database);
  const ownerLinks = createOwnerLinks(database);
  const epochs = createEpochs(database);
  const highWater = createHighWater({ database, epochs, storeKey, clock, log });
  const messages = createMessages(database, demo?.carrier ?? null, epochs.isHeld);
  const news = createNewsService();
  const libraryService = createLibraryService({ topicEdits, deliveries, settings, versions, clock });
  const languageService = createLanguageService({ boats, deliveries, people, templates, rigService, settings, clock });
  const runs = createRuns(database);
  const bookings = createBookings(database);
  const withdrawals = createWithdrawals(database);
  const packService = createPackService({ database, boats, settings, versions, clock });
  const careReader = createCareReader({
    boats,
    runs,
    deliveries,
    bookings,
    withdrawals,
    packService,
    rigService,
    settings,
    versions,
    clock,
  });
  const kept = {
    imports,
    runs,
    bookings,
    withdrawals,
    packService,
    careReader,
    photos,
    files,
    topicEdits,
    boats,
    deliveries,
    chain,
    snapshots,
    ownerLinks,
    messages,
    people,
    sessions,
    audit,
    settings,
    epochs,
    highWater,
    soundness: createSoundness(log),
  };
  const towing = createTowing(database);
  const towingService = createTowingService({
    database,
    boats,
    deliveries,
    rigService,
    settings,
    towing,
  });
  const dockCallService = createDockCallService({ deliveries, boats, people, settings, versions, clock });
  const base = {
    database,
    versions,
    ...kept,
    towingService,
    dockCallService,
    news,
    rigService,
    languageService,
    libraryService,
    storeKey,
    clock,
  };
  const walkReader = createWalkReader(base);
  const walksInHand = createWalksInHand({ database, walkReader });
  const parts = { ...base, walkReader, walksInHand, sealing: createSealing(base) };
  const runService = createRunService(parts);
  const fleetCare = createFleetCare(parts);
  const jobs = createJobs(database, clock, log, epochs.isHeld);
  const handoverService = createHandoverService(parts);
  const bundleService = createBundleService({ ...parts, handoverService });
  const buyers = createBuyers(database);
  const takePhoto = createTurns(mostPhotosWaiting, mostPhotosOfOne);
  const staffService = createStaffService({ ...parts, hasher, cost });
  return {
    ...parts,
    pins,
    demoAccounts: demo?.accounts ?? null,
    origin,
    auth: {
      sessions,
      pins,
      audit,
      ownerLinks,
      clock,
      findStore: async () => {
        const { store, phone } = await settings.read();
        return { store, phone };
      },
      takeTurn: createTurns(mostLargeWaiting, mostOfOne),
      takeRate: createRates(),
      takePaper: createTurns(mostPapersWaiting, mostOfOne),
    },
    streams: createStreams(),
    press,
    keeper,
    restoredService: createRestoredService({ ...parts, handoverService, jobs }),
    takePhoto,
    staffService,
    signInService: createSignInService({ ...parts, hasher, cost, pins }),
    setUpService: createSetUpService({ ...parts, staffService, storeAddress }),
    storeAddress,
    fleetCare,
    handoverService,
    ownerService: createOwnerService({ ...parts, handoverService, origin }),
    bundleService,
    buyerService: createBuyerService({
      ...parts,
      buyers,
      towing,
      bundleService,
      strikeService: createStrikeService(parts),
    }),
    retentionService: createRetentionService({ ...parts, buyers }),
    runService,
    // The demo begins anew whenever its folder goes: nobody is told to keep a copy of it.
    boatService: createBoatService({
      ...parts,
      fleetCare,
      jobs,
      judgeBackup: () => (demo === null ? keeper.judge() : "good"),
    }),
    careEntryService: createCareEntryService({ ...parts, runService }),
    aftercareService: createAftercareService({ ...parts, fleetCare, jobs, origin }),
    workshopService: createWorkshopService({ ...parts, fleetCare }),
    calendarService: createCalendarService({ ...parts, fleetCare }),
    gateway: demo?.gateway ?? null,
    forecaster: demo?.forecaster ?? null,
    jobs,
    sheetService: createSheetService({ ...parts, templates }),
    reportService: createReportService({ ...parts, people, reportTables: createReportTables(database) }),
  };
}

export type Services = ReturnType<typeof createServices>;
