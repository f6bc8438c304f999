import type { Clock } from "./clock.ts";
import type { Database } from "./database/open.ts";
import { createBoatDesk } from "./desk/boatDesk.ts";
import { createHandoverDesk } from "./desk/handoverDesk.ts";
import { createLibraryDesk } from "./desk/libraryDesk.ts";
import { createRigDesk } from "./desk/rigDesk.ts";
import { createSheetDesk } from "./desk/sheetDesk.ts";
import { createBoats } from "./repositories/boats.ts";
import { createDeliveries } from "./repositories/deliveries.ts";
import { createPeople } from "./repositories/people.ts";
import { createPhotos } from "./repositories/photos.ts";
import { createSettings } from "./repositories/settings.ts";
import { createTemplates } from "./repositories/templates.ts";
import { createTopicEdits } from "./repositories/topicEdits.ts";

export interface DemoAccount {
  login: string;
  password: string;
  name: string;
  role: string;
}

/** Everything the routes need, wired once. `demoAccounts` are shown on the sign-in screen; null outside demo mode. */
export function createServices(database: Database, clock: Clock, demoAccounts: DemoAccount[] | null) {
  const people = createPeople(database);
  const boats = createBoats(database);
  const deliveries = createDeliveries(database);
  const settings = createSettings(database);
  const rigDesk = createRigDesk();
  const topicEdits = createTopicEdits(database);
  const templates = createTemplates(database);
  const photos = createPhotos(database);
  const libraryDesk = createLibraryDesk({ topicEdits, deliveries, settings, clock });
  const parts = { database, photos, topicEdits, boats, deliveries, people, settings, rigDesk, libraryDesk, clock };
  return {
    ...parts,
    demoAccounts,
    door: { people, nowMs: clock.nowMs },
    handoverDesk: createHandoverDesk(parts),
    boatDesk: createBoatDesk(parts),
    sheetDesk: createSheetDesk({ ...parts, templates }),
  };
}

export type Services = ReturnType<typeof createServices>;
