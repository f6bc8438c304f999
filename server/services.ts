import type { Clock } from "./clock.ts";
import type { Database } from "./database/open.ts";
import { createAftercareDesk } from "./desk/aftercareDesk.ts";
import { createBoatDesk } from "./desk/boatDesk.ts";
import { createCalendarDesk } from "./desk/calendarDesk.ts";
import { createCareReader } from "./desk/careReader.ts";
import { createCarryDesk } from "./desk/carryDesk.ts";
import { createFleetCare } from "./desk/fleetCare.ts";
import { createHandoverDesk } from "./desk/handoverDesk.ts";
import { createLibraryDesk } from "./desk/libraryDesk.ts";
import { createOwnerDesk } from "./desk/ownerDesk.ts";
import { createPackDesk } from "./desk/packDesk.ts";
import { createRigDesk } from "./desk/rigDesk.ts";
import { createRunDesk } from "./desk/runDesk.ts";
import { createSheetDesk } from "./desk/sheetDesk.ts";
import { createWorkshopDesk } from "./desk/workshopDesk.ts";
import { createJobs } from "./jobs.ts";
import { createNewsDesk } from "./news.ts";
import { createBoats } from "./repositories/boats.ts";
import { createBookings } from "./repositories/bookings.ts";
import { createChain } from "./repositories/chain.ts";
import { createDeliveries } from "./repositories/deliveries.ts";
import { createFiles } from "./repositories/files.ts";
import { createOwnerLinks } from "./repositories/ownerLinks.ts";
import { createPeople } from "./repositories/people.ts";
import { createPhotos } from "./repositories/photos.ts";
import { createRuns } from "./repositories/runs.ts";
import { createSettings } from "./repositories/settings.ts";
import { createTemplates } from "./repositories/templates.ts";
import { createTopicEdits } from "./repositories/topicEdits.ts";
import { createGatewayStandIn } from "./standins/gateway.ts";
import { createMessagesStandIn } from "./standins/messages.ts";

export interface DemoAccount {
  login: string;
  password: string;
  name: string;
  role: string;
}

/** Everything the routes need, wired once. `demoAccounts` are shown on the sign-in screen; null outside demo mode. */
export function createServices(
  database: Database,
  clock: Clock,
  demoAccounts: DemoAccount[] | null,
  origin: () => string = () => "",
) {
  const people = createPeople(database);
  const boats = createBoats(database);
  const deliveries = createDeliveries(database);
  const settings = createSettings(database);
  const rigDesk = createRigDesk();
  const topicEdits = createTopicEdits(database);
  const templates = createTemplates(database);
  const photos = createPhotos(database);
  const files = createFiles(database);
  const chain = createChain(database);
  const ownerLinks = createOwnerLinks(database);
  const messages = createMessagesStandIn(database);
  const news = createNewsDesk();
  const libraryDesk = createLibraryDesk({ topicEdits, deliveries, settings, clock });
  const runs = createRuns(database);
  const bookings = createBookings(database);
  const packDesk = createPackDesk({ database, boats, rigDesk, clock });
  const careReader = createCareReader({ boats, runs, deliveries, bookings, packDesk, rigDesk, settings, clock });
  const kept = {
    runs,
    bookings,
    packDesk,
    careReader,
    photos,
    files,
    topicEdits,
    boats,
    deliveries,
    chain,
    ownerLinks,
    messages,
    people,
    settings,
  };
  const parts = { database, ...kept, news, rigDesk, libraryDesk, clock };
  const runDesk = createRunDesk(parts);
  const fleetCare = createFleetCare(parts);
  const jobs = createJobs(database, clock);
  const handoverDesk = createHandoverDesk(parts);
  return {
    ...parts,
    demoAccounts,
    door: { people, nowMs: clock.nowMs },
    handoverDesk,
    ownerDesk: createOwnerDesk({ ...parts, handoverDesk }),
    carryDesk: createCarryDesk({ ...parts, handoverDesk }),
    runDesk,
    boatDesk: createBoatDesk({ ...parts, runDesk }),
    aftercareDesk: createAftercareDesk({ ...parts, fleetCare, jobs, origin }),
    workshopDesk: createWorkshopDesk({ ...parts, fleetCare }),
    calendarDesk: createCalendarDesk({ ...parts, fleetCare }),
    gateway: createGatewayStandIn(),
    jobs,
    sheetDesk: createSheetDesk({ ...parts, templates }),
  };
}

export type Services = ReturnType<typeof createServices>;
