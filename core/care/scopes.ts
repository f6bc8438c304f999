import { type LocalDate, writeDate } from "../dates/index.ts";
import { listComing, type Scope, type ServiceItem } from "../service/index.ts";
import type { EngineStatus } from "./engineStatus.ts";
import { type CareQuestion, type CareRig, findPack } from "./question.ts";

/** The id under which the boat itself is served, its engines aside. */
export const boatScope = "boat";

/**
 * From which day what was never done on an engine counts: the handover; of a used one, the beginning of its model year, also
 * while it is still here, for what nobody knows counts as not done. Null for a new one before its handover.
 */
export function careSince({ inService, rig, today }: CareQuestion): LocalDate | null {
  if (rig.used === undefined) return inService;
  const built = writeDate(rig.modelYear, 1, 1);
  const first = inService ?? today;
  if (built < first) return built;
  return first;
}

/** What can come of a pack on this boat; `scope` is an engine of it, or the boat itself. */
const comingOf = ({ rig, services }: CareQuestion, scope: string, items: readonly ServiceItem[]) =>
  listComing(items, rig.used !== undefined, (id) =>
    services.some(({ engine, item }) => engine === scope && item === id),
  );

/** The engines whose hours are known with their packs, then the boat itself. */
export function listScopes(question: CareQuestion, statuses: readonly EngineStatus[]): Scope[] {
  const { inService, today, services, packs, rig } = question;
  const doneOf = (scope: string) => services.filter(({ engine }) => engine === scope);
  const since = careSince(question) ?? today;
  const engines = statuses.flatMap(({ engine, forecast }): Scope[] =>
    forecast === null
      ? []
      : [
          {
            id: engine.id,
            label: engine.label,
            forecast,
            items: comingOf(question, engine.id, findPack(packs.service, engine.servicePack).items),
            since,
            done: doneOf(engine.id),
          },
        ],
  );
  const boat: Scope = {
    id: boatScope,
    label: "The boat",
    forecast: null,
    items: comingOf(question, boatScope, packs.boatCare.items).filter((item) => isNeeded(item, rig)),
    since: inService ?? today,
    done: doneOf(boatScope),
  };
  return [...engines, boat];
}

function isNeeded({ needs }: ServiceItem, rig: CareRig): boolean {
  if (needs === "trailer") return rig.trailer !== null;
  if (needs === "flooded-battery") return rig.batteries.some(({ chemistry }) => chemistry === "flooded");
  return true;
}
