import { ulid } from "ulid";
import type { AnswerOf, BodyOf, endpoints } from "../../api/index.ts";
import { rigTemplates } from "../../content/index.ts";
import { type Rig, readHullNumber } from "../../core/rig/index.ts";
import { createStockRig } from "../../core/stock/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Templates } from "../repositories/templates.ts";
import type { PackService } from "./packService.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly templates: Templates;
  readonly rigService: RigService;
  readonly packService: PackService;
  readonly clock: Clock;
}

interface Template {
  readonly id: string;
  readonly name: string;
  readonly rig: Rig;
  readonly isShipped: boolean;
}

const shipped: readonly Template[] = Object.entries(rigTemplates).map(([id, rig]) => ({
  id,
  name: rig.model,
  rig,
  isShipped: true,
}));
const packNames = (packs: readonly { id: string; title: string }[]) => packs.map(({ id, title }) => ({ id, title }));

/** Describing boats: their rig sheets, the templates they start from, new ones by hand and from a stock list. */
export function createSheetService({ database, boats, templates, rigService, packService, clock }: Parts) {
  const listTemplates = async (): Promise<Template[]> => {
    const own = (await templates.list()).map(({ id, name, rigText }) => ({
      id,
      name,
      rig: rigService.read(rigText),
      isShipped: false,
    }));
    return [...own, ...shipped];
  };
  const findTemplate = async (id: string): Promise<Template | null> => {
    const own = await templates.find(id);
    if (own !== null) return { id, name: own.name, rig: rigService.read(own.rigText), isShipped: false };
    return shipped.find((template) => template.id === id) ?? null;
  };
  const getTemplate = async (id: string) => {
    const template = await findTemplate(id);
    if (template === null) throw new Failure("not-found", { what: "template", id });
    return template;
  };
  const getBoat = async (id: string, transaction?: Transaction): Promise<BoatRecord> => {
    const boat = await boats.find(id, transaction);
    if (boat === null) throw new Failure("not-found", { what: "boat", id });
    return boat;
  };
  const describeTemplate = ({ id, name, rig, isShipped }: Template) => {
    const { maker, model, family, loaM, beamM } = rig;
    return { id, name, maker, model, family, loaM, beamM, isShipped };
  };
  /** What people call a boat by, if nobody has that yet: its serial; else something unique. */
  const createBoatId = async (hull: string, transaction: Transaction): Promise<string> => {
    const year = Number(clock.today().slice(0, 4));
    const { maker, serial } = readHullNumber(hull, year);
    const short = maker === null || serial === null ? null : `${maker}${serial}`.toLowerCase();
    return short !== null && (await boats.find(short, transaction)) === null ? short : ulid().toLowerCase();
  };
  const refuseTwin = async (hull: string, except: string | null, transaction: Transaction) => {
    const twin = await boats.findByHull(hull, transaction);
    if (twin !== null && twin.id !== except)
      throw new Failure("not-empty", { what: "boat with hull number", id: hull });
  };
  const tidyHull = (hull: string) => hull.toUpperCase().replace(/[\s-]/g, "");

  return {
    async describe(id: string): Promise<AnswerOf<typeof endpoints.rig>> {
      const boat = await getBoat(id);
      const template = boat.template === null ? null : await findTemplate(boat.template);
      const packs = await packService.read();
      return {
        boat: boat.id,
        name: boat.name,
        hull: boat.hull,
        version: boat.version,
        rig: rigService.read(boat.rigText),
        template: template === null ? null : { id: template.id, name: template.name },
        breakInPacks: packNames(packs.breakIn),
        servicePacks: packNames(packs.service),
      };
    },

    /** Keeps the rig if nobody has saved it since; answers the version it is now. */
    async save(id: string, { version, name, hull, rig }: BodyOf<typeof endpoints.setRig>): Promise<number> {
      return database.inTransaction(async (transaction) => {
        const boat = await getBoat(id, transaction);
        if (boat.version !== version) throw new Failure("rig-changed", { version: boat.version });
        const tidy = tidyHull(hull);
        await refuseTwin(tidy, id, transaction);
        await boats.setRig(id, { name, hull: tidy, rig, version: version + 1 }, transaction);
        return version + 1;
      });
    },

    async add(body: BodyOf<typeof endpoints.addBoat>): Promise<string> {
      const source = await readSource(body);
      return database.inTransaction(async (transaction) => {
        const hull = tidyHull(body.hull);
        await refuseTwin(hull, null, transaction);
        const id = await createBoatId(hull, transaction);
        await boats.add({ id, name: body.name, hull, ...source }, transaction);
        return id;
      });
    },

    /** Adds what the store does not have yet, all or none; the same list a second time adds nothing. */
    async importStock(stock: BodyOf<typeof endpoints.importBoats>["boats"]) {
      const byId = new Map((await listTemplates()).map((template) => [template.id, template]));
      return database.inTransaction(async (transaction) => {
        let added = 0;
        for (const [i, line] of stock.entries()) {
          const template = byId.get(line.template);
          if (template === undefined) {
            const issues = [{ path: `boats[${i}].template`, message: `no template "${line.template}"` }];
            throw new Failure("invalid-input", { issues });
          }
          const hull = tidyHull(line.hull);
          if ((await boats.findByHull(hull, transaction)) !== null) continue;
          const id = await createBoatId(hull, transaction);
          const rig = createStockRig({ ...line, hull }, template.rig);
          await boats.add({ id, name: line.name, hull, rig, template: template.id }, transaction);
          added++;
        }
        return { added, known: stock.length - added };
      });
    },

    async listTemplates() {
      return { templates: (await listTemplates()).map(describeTemplate) };
    },
    async describeTemplate(id: string) {
      const template = await getTemplate(id);
      return { ...describeTemplate(template), rig: template.rig };
    },
    async saveTemplate(id: string, name: string, rig: Rig) {
      if (shipped.some((template) => template.id === id)) throw new Failure("template-shipped", { id });
      await templates.write({ id, name, rig, at: clock.now() });
    },
    async removeTemplate(id: string) {
      if (shipped.some((template) => template.id === id)) throw new Failure("template-shipped", { id });
      if (!(await templates.remove(id))) throw new Failure("not-found", { what: "template", id });
    },
  };

  async function readSource(body: BodyOf<typeof endpoints.addBoat>): Promise<{ rig: Rig; template?: string }> {
    if ("rig" in body) return { rig: body.rig };
    if ("template" in body) {
      const { rig, id } = await getTemplate(body.template);
      return { rig, template: id };
    }
    const boat = await getBoat(body.boat);
    const rig = rigService.read(boat.rigText);
    return boat.template === null ? { rig } : { rig, template: boat.template };
  }
}

export type SheetService = ReturnType<typeof createSheetService>;
