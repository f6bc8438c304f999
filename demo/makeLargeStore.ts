import { ulid } from "ulid";
import { rigTemplates } from "../content/index.ts";
import { addDays, type IsoDate } from "../core/dates/index.ts";
import { createRandom } from "../core/random.ts";
import { styleIds } from "../core/route/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { createServices } from "../server/createServices.ts";
import type { Database } from "../server/database/open.ts";
import { summarize } from "../server/services/summarize.ts";
import { tellWalk, type WalkTale } from "./walkEntries.ts";

const names = ["Anselm", "Varnholt", "Hollick", "Okonjo", "Sollis", "Pellow", "Ashgrove", "Quill", "Tarrant", "Ubele"];

/**
 * Adds `count` handovers with all their entries to a demo store: most long past, some still to come, a few with something
 * owed. Written straight into the tables, for measuring; the demo itself goes through the services.
 */
export async function addManyDeliveries(database: Database, today: IsoDate, count: number): Promise<void> {
  const services = createServices(database, { timeZone: "UTC", nowMs: () => Date.now(), today: () => today }, null);
  const random = createRandom(42);
  const rig = rigTemplates["wending-23"];
  const rigText = JSON.stringify(rig);
  const example = await services.handoverService.describe("d-w118");
  const library = await services.libraryService.read();
  const prepared = await services.rigService.prepare(rigText, library, example.planOptions);
  const { models } = database;
  for (let i = 0; i < count; i++) {
    const daysAgo = Math.floor(random() * 900) - 20;
    const date = addDays(today, -daysAgo);
    const id = `many-${i}`;
    const isSigned = daysAgo > 0;
    const delivery = { ...example, id: `d-${id}`, entries: [] };
    const marks: NonNullable<WalkTale["marks"]> =
      random() < 0.04 ? { plotter: { mark: "later", note: "by phone" } } : {};
    const entries: Entry[] = isSigned
      ? tellWalk(delivery, {
          by: "nessa",
          startMs: Date.parse(`${date}T10:00:00Z`) + i,
          seed: i + 1,
          hours: { port: 1, starboard: 1 },
          marks,
          isSigned,
        })
      : [];
    const summary = summarize(prepared, entries, [], isSigned);
    const readings = isSigned
      ? rig.engines.map((engine) => ({
          id: ulid(),
          boatId: id,
          engine: engine.id,
          date,
          hours: 1,
          reason: null,
          by: "nessa",
          source: "walk",
          answer: null,
          photo: null,
        }))
      : [];
    const done =
      isSigned && daysAgo > 200
        ? rig.engines.flatMap((engine) =>
            ["first-service", "annual"].map((item) => ({
              id: ulid(),
              boatId: id,
              engine: engine.id,
              item,
              date: addDays(today, -Math.floor(random() * 170)),
              hours: 20,
              by: "ines",
              outcome: "done",
              note: "",
              photo: null,
              file: null,
              fileName: null,
              priceCents: null,
            })),
          )
        : [];
    await database.inTransaction(async (transaction) => {
      await models.boats.create(
        {
          id,
          name: "Wending 23",
          hull: `SLW2${String(1000 + i).slice(-4)}A525`,
          rig: rigText,
          inService: isSigned ? date : null,
          template: null,
          version: 1,
          contact: "{}",
        },
        { transaction },
      );
      const buyers = [{ id: "b1", name: `${names[i % names.length]} ${i}` }];
      const style = styleIds[i % styleIds.length]!;
      await services.deliveries.add(
        {
          id: delivery.id,
          boatId: id,
          date,
          time: "10:00",
          note: "",
          buyers,
          planOptions: { ...example.planOptions, style },
          summary,
        },
        transaction,
      );
      if (entries.length > 0)
        await services.deliveries.addEntries(delivery.id, entries, { receivedAt: null, via: "staff" }, transaction);
      for (const reading of readings) await services.boats.addReading(reading, transaction);
      for (const service of done) await services.boats.addService(service, transaction);
    });
  }
}
