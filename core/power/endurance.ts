import { z } from "zod";
import { conducts, joinNodes } from "./joinNodes.ts";
import { live } from "./live.ts";
import { type LiveInput, liveInputSchema } from "./liveContract.ts";

const chemistries = ["flooded", "agm", "lifepo4"] as const;
export type Chemistry = (typeof chemistries)[number];

/** The share of charge down to which a bank is worth using: half of lead, four fifths of lithium. */
export const usualFloor: Readonly<Record<Chemistry, number>> = { flooded: 0.5, agm: 0.5, lifepo4: 0.2 };
/** Peukert's exponent: how much less than its 20-hour capacity a bank gives to a larger draw. Usual textbook figures. */
const exponents: Readonly<Record<Chemistry, number>> = { flooded: 1.25, agm: 1.1, lifepo4: 1.03 };
const ratedH = 20;
const share = z.number().min(0).max(1);

/** Input of the contract `endurance`: that of `live`, and the share of charge at which each chemistry is to stop. */
export const enduranceInputSchema = liveInputSchema.safeExtend({
  floorShare: z.strictObject({ flooded: share, agm: share, lifepo4: share }).optional(),
});
const hoursSchema = z.number().min(0).nullable();
export const enduranceOutputSchema = z.strictObject({
  groups: z.array(
    z.strictObject({ batteries: z.array(z.string()), drawA: z.number().min(0), hoursToFloor: hoursSchema }),
  ),
  hoursToFloor: z.record(z.string(), hoursSchema),
});
export type EnduranceInput = z.infer<typeof enduranceInputSchema>;
export type EnduranceOutput = z.infer<typeof enduranceOutputSchema>;

/**
 * How long until each group of joined batteries is at its floor (contract `endurance`): Peukert's law above the 20-hour draw,
 * plain capacity below it; null where nothing is drawn, 0 where it is there already. Groups by their first battery.
 *
 * @example 100 Ah flooded, full, 5 A → 10 h to half.
 */
export function endurance(input: EnduranceInput): EnduranceOutput {
  const floors = input.floorShare ?? usualFloor;
  const { drawA } = live(input);
  const groups = groupBatteries(input).map((batteries) => {
    const draw = batteries.reduce((sum, { id }) => sum + drawA[id]!, 0);
    return { batteries: batteries.map(({ id }) => id), drawA: draw, hoursToFloor: hoursOf(batteries, draw, floors) };
  });
  const byBattery = groups.flatMap(({ batteries, hoursToFloor }) => batteries.map((id) => [id, hoursToFloor] as const));
  const hours = new Map(byBattery);
  return { groups, hoursToFloor: Object.fromEntries(input.batteries.map(({ id }) => [id, hours.get(id)!])) };
}

type Battery = LiveInput["batteries"][number];

/** Batteries that are joined, by what conducts now; in input order, each group where its first stands. */
export function groupBatteries({ batteries, switches, links }: LiveInput): Battery[][] {
  const position = new Map(switches.map((each) => [each.id, each.position]));
  const groupOf = joinNodes(links.filter((link) => conducts(link, position)));
  const groups = new Map<string, Battery[]>();
  for (const battery of batteries) {
    const group = groupOf(battery.node);
    groups.set(group, [...(groups.get(group) ?? []), battery]);
  }
  return [...groups.values()];
}

function hoursOf(
  batteries: readonly Battery[],
  drawA: number,
  floors: Readonly<Record<Chemistry, number>>,
): number | null {
  if (drawA === 0) return null;
  const capacityAh = batteries.reduce((sum, battery) => sum + battery.capacityAh, 0);
  const charge = batteries.reduce((sum, battery) => sum + battery.capacityAh * battery.chargeShare, 0) / capacityAh;
  const floor = Math.max(...batteries.map(({ chemistry }) => floors[chemistry]));
  if (charge <= floor) return 0;
  const exponent = Math.max(...batteries.map(({ chemistry }) => exponents[chemistry]));
  const emptyH =
    drawA <= capacityAh / ratedH ? capacityAh / drawA : ratedH * (capacityAh / (ratedH * drawA)) ** exponent;
  return emptyH * (charge - floor);
}
