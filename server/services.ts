import type { Clock } from "./clock.ts";
import type { Database } from "./database/open.ts";
import { createBoatDesk } from "./desk/boatDesk.ts";
import { createCarryDesk } from "./desk/carryDesk.ts";
import { createHandoverDesk } from "./desk/handoverDesk.ts";
import { createLibraryDesk } from "./desk/libraryDesk.ts";
import { createOwnerDesk } from "./desk/ownerDesk.ts";
import { createRigDesk } from "./desk/rigDesk.ts";
import { createSheetDesk } from "./desk/sheetDesk.ts";
import { createNewsDesk } from "./news.ts";
import { createBoats } from "./repositories/boats.ts";
import { createChain } from "./repositories/chain.ts";
import { createDeliveries } from "./repositories/deliveries.ts";
import { createOwnerLinks } from "./repositories/ownerLinks.ts";
import { createPeople } from "./repositories/people.ts";
import { createPhotos } from "./repositories/photos.ts";
import { createSettings } from "./repositories/settings.ts";
import { createTemplates } from "./repositories/templates.ts";
import { createTopicEdits } from "./repositories/topicEdits.ts";
import { createMessagesStandIn } from "./standins/messages.ts";

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
  const chain = createChain(database);
  const ownerLinks = createOwnerLinks(database);
  const messages = createMessagesStandIn(database);
  const news = createNewsDesk();
  const libraryDesk = createLibraryDesk({ topicEdits, deliveries, settings, clock });
  const kept = { photos, topicEdits, boats, deliveries, chain, ownerLinks, messages, people, settings };
  const parts = { database, ...kept, news, rigDesk, libraryDesk, clock };
  const handoverDesk = createHandoverDesk(parts);
  return {
    ...parts,
    demoAccounts,
    door: { people, nowMs: clock.nowMs },
    handoverDesk,
    ownerDesk: createOwnerDesk({ ...parts, handoverDesk }),
    carryDesk: createCarryDesk({ ...parts, handoverDesk }),
    boatDesk: createBoatDesk(parts),
    sheetDesk: createSheetDesk({ ...parts, templates }),
  };
}

export type Services = ReturnType<typeof createServices>;
