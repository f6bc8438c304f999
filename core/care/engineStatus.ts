import { toHours } from "../breakin/index.ts";
import {
  believeOwner,
  createSeason,
  describeOwner,
  type Fleet,
  forecastEngine,
  type HourForecast,
  type Owner,
  type Resolved,
  resolveReadings,
  type Season,
  usualTripH,
} from "../hours/index.ts";
import type { Engine } from "../rig/index.ts";
import { fuelOf } from "./fuel.ts";
import { type CareQuestion, findPack, readingsOf } from "./question.ts";

/** One engine as known today: what it has run, what its owner is believed to run. */
export interface EngineStatus {
  readonly engine: Engine;
  readonly resolved: readonly Resolved[];
  readonly owner: Owner;
  /** Null where no hours were ever read. */
  readonly forecast: HourForecast | null;
  /** The middle of the forecast for today; before the handover what was read. */
  readonly likelyNowH: number | null;
}

const seasons = new WeakMap<Fleet, Season>();
/** A fleet's season, made once for all its engines. */
export function seasonOf(fleet: Fleet): Season {
  const season = seasons.get(fleet) ?? createSeason(fleet.seasonShare);
  seasons.set(fleet, season);
  return season;
}

/** What this owner is known by: of a used boat not the hours before its handover, which others ran, but the last of them. */
function ofOwner(resolved: readonly Resolved[], { rig, inService }: CareQuestion): readonly Resolved[] {
  if (rig.used === undefined || inService === null) return resolved;
  const own = resolved.filter(({ date }) => date >= inService);
  return own.length === 0 ? resolved.slice(-1) : own;
}

export function readEngineStatus(question: CareQuestion, engine: Engine): EngineStatus {
  const { fleet, today, inService } = question;
  const season = seasonOf(fleet);
  const resolved = resolveReadings(readingsOf(question, engine.id));
  const last = resolved.at(-1);
  // One stretch from the first to the last reading says nearly all that the single ones do.
  const [first] = ofOwner(resolved, question);
  const passed =
    first === undefined || last === undefined || last.date === first.date
      ? []
      : [{ share: season.between(first.date, last.date), hours: last.engineH - first.engineH }];
  const owner = believeOwner(fleet.yearH, passed, usualTripH);
  const readings = resolved.map(({ date, engineH }) => ({ date, hours: engineH }));
  const forecast = readings.length === 0 ? null : forecastEngine({ readings, ...describeOwner(owner) }, season, today);
  const readH = last?.engineH ?? null;
  const likelyNowH = forecast === null || inService === null ? readH : forecast.likelyOn(today);
  return { engine, resolved, owner, forecast, likelyNowH };
}

/** After how many hours an engine is run in; null where its tanks are not known. */
export function breakInHoursOf({ rig, packs, fills }: CareQuestion, { engine, resolved }: EngineStatus): number | null {
  const pack = findPack(packs.breakIn, engine.breakInPack);
  return toHours(pack, fuelOf(rig, engine, fills, resolved))?.totalH ?? null;
}
