import type { EngineCare } from "../../api/index.ts";
import { breakInPacks, servicePacks } from "../../content/index.ts";
import { findBreakInStanding } from "../../core/breakin/index.ts";
import type { IsoDate } from "../../core/dates/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { due, estimateHours, type ServicePack } from "../../core/service/index.ts";
import type { ReadingRow, ServiceRow } from "../database/models.ts";

export interface CareQuestion {
  readonly rig: Rig;
  readonly inService: IsoDate | null;
  readonly today: IsoDate;
  readonly monthlyHours: readonly number[];
  readonly readings: readonly ReadingRow[];
  readonly services: readonly ServiceRow[];
}

/** Break-in and service of every engine of a boat, as known today. Before delivery nothing falls due. */
export function describeCare(question: CareQuestion): EngineCare[] {
  return question.rig.engines.map((engine): EngineCare => {
    const breakInPack = findPack(breakInPacks, engine.breakInPack);
    const servicePack = findPack(servicePacks, engine.servicePack);
    const told = lastTold(question.readings, engine.id);
    const { inService, today } = question;
    const likelyNowH =
      told === null
        ? null
        : inService === null
          ? told.hours
          : estimateHours(told.hours, told.date, today, question.monthlyHours);
    return {
      engine: engine.id,
      label: engine.label,
      toldH: told?.hours ?? null,
      toldOn: told?.date ?? null,
      likelyNowH,
      breakInTitle: breakInPack.title,
      breakInBasis: breakInPack.basis,
      // Limits follow the hours told, not those supposed: the lower count has the stricter limits.
      breakIn: told === null ? null : findBreakInStanding(breakInPack, told.hours, engine.ratedRpm.to),
      serviceTitle: servicePack.title,
      serviceBasis: servicePack.basis,
      items: inService === null || likelyNowH === null ? [] : listItems(question, engine.id, servicePack, likelyNowH),
    };
  });
}

function listItems(question: CareQuestion, engine: string, pack: ServicePack, hoursNow: number): EngineCare["items"] {
  const mine = question.services.filter(
    (service) => service.engine === engine && pack.items.some(({ id }) => id === service.item),
  );
  const { items } = due({
    inService: question.inService!,
    today: question.today,
    hoursNow,
    monthlyHours: [...question.monthlyHours],
    items: pack.items.map(({ title: _, work: __, ...item }) => item),
    done: mine.map(({ item, date, hours }) => ({ item, date, hours })),
  });
  return items.map((item, i) => {
    const dates = mine.filter((service) => service.item === item.id).map(({ date }) => date);
    return { ...item, title: pack.items[i]!.title, work: pack.items[i]!.work, lastDone: dates.sort().at(-1) ?? null };
  });
}

/** The reading that counts: the last by date, of one day the one entered last. `readings` as the repository lists them. */
function lastTold(readings: readonly ReadingRow[], engine: string): ReadingRow | null {
  return readings.findLast((reading) => reading.engine === engine) ?? null;
}

function findPack<P extends { id: string }>(packs: readonly P[], id: string): P {
  const pack = packs.find((candidate) => candidate.id === id);
  if (pack === undefined) throw new Error(`findPack: expected one of ${packs.map((p) => p.id).join(", ")}, got ${id}`);
  return pack;
}

/** The earliest due date over all engines and items; null when nothing is. */
export function findNextDue(care: readonly EngineCare[]): IsoDate | null {
  const dates = care.flatMap(({ items }) => items.flatMap(({ dueDate }) => (dueDate === null ? [] : [dueDate])));
  return dates.sort()[0] ?? null;
}
