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
export function createSheetService(parts: Parts) {
  const { database, boats, templates, clock } = parts;

  return {
    describe: (id: string) => describeSheet(parts, id),

    /** Keeps the rig if nobody has saved it since; answers the version it is now. */
    async save(id: string, { version, name, hull, rig }: BodyOf<typeof endpoints.setRig>): Promise<number> {
      return database.inTransaction(async (transaction) => {
        const boat = await getBoat(parts, id, transaction);
        if (boat.version !== version) throw new Failure("rig-changed", { version: boat.version });
        const tidy = tidyHull(hull);
        await refuseTwin(parts, tidy, id, transaction);
        await boats.setRig(id, { name, hull: tidy, rig, version: version + 1 }, transaction);
        return version + 1;
      });
    },

    async add(body: BodyOf<typeof endpoints.addBoat>): Promise<string> {
      const source = await readSource(parts, body);
      return database.inTransaction(async (transaction) => {
        const hull = tidyHull(body.hull);
        await refuseTwin(parts, hull, null, transaction);
        const id = await createBoatId(parts, hull, transaction);
        await boats.add({ id, name: body.name, hull, ...source }, transaction);
        return id;
      });
    },

    async setStock(id: string, named: BodyOf<typeof endpoints.setStock>) {
      await getBoat(parts, id);
      await boats.setStock(id, named);
    },

    importStock: (stock: BodyOf<typeof endpoints.importBoats>["boats"]) => importStock(parts, stock),

    async listTemplates() {
      return { templates: (await listTemplates(parts)).map(describeTemplate) };
    },
    async describeTemplate(id: string) {
      const template = await getTemplate(parts, id);
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
}

export type SheetService = ReturnType<typeof createSheetService>;

async function readSource(
  parts: Parts,
  body: BodyOf<typeof endpoints.addBoat>,
): Promise<{ rig: Rig; template?: string }> {
  const { rigService } = parts;
  if ("rig" in body) return { rig: body.rig };
  if ("template" in body) {
    const { rig, id } = await getTemplate(parts, body.template);
    return { rig: forgetCheck(rig), template: id };
  }
  const boat = await getBoat(parts, body.boat);
  const rig = rigService.read(boat.rigText);
  return boat.template === null ? { rig: forgetCheck(rig) } : { rig: forgetCheck(rig), template: boat.template };
}

async function refuseTwin({ boats }: Parts, hull: string, except: string | null, transaction: Transaction) {
  const twin = await boats.findByHull(hull, transaction);
  if (twin !== null && twin.id !== except) throw new Failure("not-empty", { what: "boat with hull number", id: hull });
}

/** What people call a boat by, if nobody has that yet: its serial; else something unique. */
async function createBoatId({ boats, clock }: Parts, hull: string, transaction: Transaction): Promise<string> {
  const year = Number(clock.today().slice(0, 4));
  const { maker, serial } = readHullNumber(hull, year);
  const short = maker === null || serial === null ? null : `${maker}${serial}`.toLowerCase();
  return short !== null && (await boats.find(short, transaction)) === null ? short : ulid().toLowerCase();
}

async function getBoat({ boats }: Parts, id: string, transaction?: Transaction): Promise<BoatRecord> {
  const boat = await boats.find(id, transaction);
  if (boat === null) throw new Failure("not-found", { what: "boat", id });
  return boat;
}

const tidyHull = (hull: string) => hull.toUpperCase().replace(/[\s-]/g, "");

function describeTemplate({ id, name, rig, isShipped }: Template) {
  const { maker, model, family, loaM, beamM } = rig;
  return { id, name, maker, model, family, loaM, beamM, isShipped };
}

async function getTemplate(parts: Parts, id: string) {
  const template = await findTemplate(parts, id);
  if (template === null) throw new Failure("not-found", { what: "template", id });
  return template;
}

/** That the wiring was looked at is true of that boat alone. */
const forgetCheck = ({ wiringChecked: _, ...rig }: Rig): Rig => rig;

async function findTemplate({ templates, rigService }: Parts, id: string): Promise<Template | null> {
  const own = await templates.find(id);
  if (own !== null) return { id, name: own.name, rig: rigService.read(own.rigText), isShipped: false };
  return shipped.find((template) => template.id === id) ?? null;
}

async function listTemplates({ templates, rigService }: Parts): Promise<Template[]> {
  const own = (await templates.list()).map(({ id, name, rigText }) => ({
    id,
    name,
    rig: rigService.read(rigText),
    isShipped: false,
  }));
  return [...own, ...shipped];
}

async function describeSheet(parts: Parts, id: string): Promise<AnswerOf<typeof endpoints.rig>> {
  const { packService, rigService } = parts;
  const boat = await getBoat(parts, id);
  const template = boat.template === null ? null : await findTemplate(parts, boat.template);
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
}

/** Adds what the store does not have yet, all or none; the same list a second time adds nothing. */
async function importStock(parts: Parts, stock: BodyOf<typeof endpoints.importBoats>["boats"]) {
  const { database, boats } = parts;
  const byId = new Map((await listTemplates(parts)).map((template) => [template.id, template]));
  const thisYear = Number(parts.clock.today().slice(0, 4));
  return database.inTransaction(async (transaction) => {
    let added = 0;
    for (const [i, line] of stock.entries()) {
      const template = "template" in line.start ? (byId.get(line.start.template) ?? null) : null;
      if ("template" in line.start && template === null) {
        const issues = [{ path: `boats[${i}].start.template`, message: `no template "${line.start.template}"` }];
        throw new Failure("invalid-input", { issues });
      }
      const hull = tidyHull(line.hull);
      if ((await boats.findByHull(hull, transaction)) !== null) continue;
      const id = await createBoatId(parts, hull, transaction);
      const rig = createStockRig({ ...line, hull }, template?.rig ?? null, thisYear);
      const { stock, color } = line;
      const from = template === null ? {} : { template: template.id };
      await boats.add({ id, name: line.name, hull, stock, color, rig, ...from }, transaction);
      added++;
    }
    return { added, known: stock.length - added };
  });
}
