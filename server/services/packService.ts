import type { PackSheet } from "../../api/index.ts";
import { boatCarePack, breakInPacks, servicePacks } from "../../content/index.ts";
import { type BreakInPack, breakInPackSchema } from "../../core/breakin/index.ts";
import type { Packs } from "../../core/care/index.ts";
import { spellAll } from "../../core/region/index.ts";
import { keptServicePackSchema, type ServicePack } from "../../core/service/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { readAll } from "../database/rows.ts";
import { Failure } from "../failure.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { Boats } from "../repositories/boats.ts";
import type { createSettings } from "../repositories/settings.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly settings: ReturnType<typeof createSettings>;
  readonly versions: Versions;
  readonly clock: Clock;
}

const shippedService = [...servicePacks, boatCarePack];

/** Break-in and service packs: what ships, with the store's own laid over it. */
export function createPackService({ database, boats, settings, versions, clock }: Parts) {
  const { models } = database;
  const readRows = () => readAll(models.packs, { order: ["id"] });
  const model = createReadModel(versions, {
    settings: ["packs"],
    key: async () => (await settings.read()).region.spelling,
    async make(): Promise<Packs> {
      const rows = await readRows();
      const { spelling } = (await settings.read()).region;
      const bodies = (kind: string) => rows.filter((row) => row.kind === kind).map(({ body }) => JSON.parse(body));
      const service = lay(
        spellAll(shippedService, spelling),
        bodies("service").map((body) => keptServicePackSchema.parse(body)),
      );
      return {
        breakIn: lay(
          spellAll(breakInPacks, spelling),
          bodies("breakin").map((body) => breakInPackSchema.parse(body)),
        ),
        service: service.filter(({ id }) => id !== boatCarePack.id),
        boatCare: service.find(({ id }) => id === boatCarePack.id)!,
      };
    },
  });
  const read = async (): Promise<Packs> => (await model()).value;
  return {
    read,
    /** New with every change: what was made from other packs is made anew. */
    stamp: async () => (await model()).stamp,
    async describe(): Promise<PackSheet> {
      const { breakIn, service, boatCare } = await read();
      const rows = new Map((await readRows()).map((row) => [row.id, row]));
      const line = <P extends { id: string }>(pack: P, shipped: readonly { id: string }[]) => ({
        pack,
        isShipped: shipped.some(({ id }) => id === pack.id),
        isChanged: rows.has(pack.id) && shipped.some(({ id }) => id === pack.id),
        version: rows.get(pack.id)?.version ?? 1,
      });
      return {
        breakIn: breakIn.map((pack) => line(pack, breakInPacks)),
        service: [...service, boatCare].map((pack) => line(pack, shippedService)),
      };
    },
    async set(id: string, kind: "breakin" | "service", pack: BreakInPack | ServicePack, by: string) {
      if (pack.id !== id)
        throw new Failure("invalid-input", {
          issues: [{ path: "pack.id", message: `must be "${id}", as in the address` }],
        });
      const at = clock.now();
      await database.inTransaction(async (transaction) => {
        const [before] = await readAll(models.packs, { where: { id } }, transaction);
        if (before !== undefined && before.kind !== kind)
          throw new Failure("invalid-input", {
            issues: [{ path: "kind", message: `"${id}" is another kind of pack` }],
          });
        const row = { id, kind, body: JSON.stringify(pack), version: (before?.version ?? 1) + 1, by, at };
        await models.packs.upsert(row, { transaction });
      });
    },
    async remove(id: string) {
      const isShipped = [...breakInPacks, ...shippedService].some((pack) => pack.id === id);
      if (!isShipped) {
        const used = await boats.listNamesWithPack(id);
        if (used.length > 0) throw new Failure("pack-used", { pack: id, boats: used.length, first: used[0]! });
      }
      await models.packs.destroy({ where: { id } });
    },
  };
}

export type PackService = ReturnType<typeof createPackService>;

const lay = <P extends { id: string }>(shipped: readonly P[], own: readonly P[]): P[] => [
  ...shipped.map((pack) => own.find(({ id }) => id === pack.id) ?? pack),
  ...own.filter(({ id }) => !shipped.some((pack) => pack.id === id)),
];
