import { spellText } from "../region/index.ts";
import { checkBreakers, checkPanel, checkPower } from "./checkElectrics.ts";
import { checkPlaces } from "./checkPlaces.ts";
import { checkTrailer } from "./checkTrailer.ts";
import {
  type CheckAids,
  type Find,
  type Finding,
  hasKind,
  isEnclosed,
  type SheetSection,
  sheetSections,
} from "./finding.ts";
import { findLeftBehind, type LeftBehind } from "./leftBehind.ts";
import type { Rig } from "./rig.ts";
import { listUnreadWeights } from "./unread.ts";

/**
 * What is left to do on a rig sheet: findings in the order of the sheet, empty when nothing is. Rules are the trade's common
 * checks, our own list; what local law asks for aboard is the contract `gear`, not this.
 */
export function checkRig(rig: Rig, aids: CheckAids): Finding[] {
  const sections: Record<SheetSection, Find[]> = {
    boat: checkBoat(rig),
    places: checkPlaces(rig, aids),
    power: checkPower(rig, aids),
    panel: checkPanel(rig),
    breakers: checkBreakers(rig),
    engines: checkEngines(rig, aids),
    tanks: checkTanks(rig),
    trailer: checkTrailer(rig),
    gear: checkGear(rig),
  };
  return sheetSections.flatMap((section) =>
    sections[section].map((find) => ({ ...find, text: spellText(find.text, aids.idiom.spelling), section })),
  );
}

function checkBoat(rig: Rig): Find[] {
  const missing = listUnreadWeights(rig).length;
  if (missing === 0) return [];
  const text = `${missing} of weights and draft are not entered; the tow and ramp cards stay empty without them`;
  return [{ kind: "weights-missing", text, item: null }];
}

function checkEngines(rig: Rig, { breakInPacks, servicePacks }: CheckAids): Find[] {
  const finds: Find[] = [];
  for (const { id, label, breakInPack, servicePack, ratedRpm } of rig.engines) {
    if (!breakInPacks.has(breakInPack) || !servicePacks.has(servicePack))
      finds.push({
        kind: "engine-without-care-pack",
        text: `${label}: pick its break-in and service pack, or nobody is told when to come back`,
        item: id,
      });
    if (ratedRpm.from >= ratedRpm.to)
      finds.push({
        kind: "rated-band-upside-down",
        text: `${label}: read its rated band, from the lower rpm to the higher, in its manual`,
        item: id,
      });
  }
  const fuels = new Set(rig.engines.map(({ fuel }) => fuel ?? "petrol"));
  for (const fuel of fuels)
    if (!rig.tanks.some(({ kind }) => kind === fuel) && !hasKind(rig, "portable-tank"))
      finds.push({ kind: "no-fuel-tank", text: `No ${fuel} tank is described`, item: null });
  return finds;
}

function checkTanks(rig: Rig): Find[] {
  const finds: Find[] = [];
  for (const { id, label, usual } of rig.tanks)
    if (usual === true)
      finds.push({
        kind: "figure-not-read",
        text: `${label}: how much does it hold? Read it on the tank or in the manual`,
        item: id,
      });
  for (const { id, label, fill } of rig.tanks)
    if (fill === undefined && !(hasKind(rig, "portable-tank") && /petrol|diesel/.test(kindOfTank(rig, id))))
      finds.push({
        kind: "tank-without-fill",
        text: `${label}: where is it filled or emptied?`,
        item: id,
        place: "fill",
      });
  const named = new Set(rig.throughHulls.map(({ part }) => part));
  for (const { id, kind, label } of rig.parts)
    if (kind === "through-hull" && !named.has(id))
      finds.push({ kind: "through-hull-not-named", text: `${label}: what does it serve?`, item: id });
  const drinks = isEnclosed(rig) || hasKind(rig, "livewell");
  if (drinks && !hasKind(rig, "through-hull") && !rig.engines.every(({ kind }) => kind === "sterndrive"))
    finds.push({
      kind: "raw-water-without-valve",
      text: "Something aboard draws water from outside, and no through-hull valve is placed",
      item: null,
      place: "through-hull",
    });
  if (
    hasKind(rig, "head") &&
    !rig.tanks.some(({ kind }) => kind === "waste") &&
    !rig.throughHulls.some(({ serves }) => /head/i.test(serves))
  )
    finds.push({ kind: "waste-without-tank", text: "The head has neither a waste tank nor a way out", item: null });
  return [...finds, ...listLeftBehind(rig, "throughHulls")];
}

/** What speaks of something that is no longer aboard. */
const listLeftBehind = (rig: Rig, of: LeftBehind["list"]): Find[] =>
  findLeftBehind(rig)
    .filter(({ list }) => list === of)
    .map(({ item, text, says }) => ({
      kind: "names-what-is-gone",
      text: `“${text}” is on the sheet, and this boat has no ${says}. Change it, or put the ${says} on`,
      item,
    }));

const kindOfTank = (rig: Rig, id: string) => rig.tanks.find((tank) => tank.id === id)!.kind;

function checkGear(rig: Rig): Find[] {
  const { gear, engines } = rig;
  const left = listLeftBehind(rig, "gear");
  if (engines.every(({ start }) => start === "pull") || gear.some(({ group }) => group === "keys")) return left;
  return [{ kind: "keys-not-counted", text: "Keys are not on the list of what is handed over", item: null }, ...left];
}
