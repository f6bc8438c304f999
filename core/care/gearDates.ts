import { addDays, type LocalDate } from "../dates/index.ts";
import type { Rig } from "../rig/index.ts";

/** What has a day printed on it: flares, extinguishers, anything that says it is dated. */
export const goesOutOfDate = ({ label }: { readonly label: string }): boolean =>
  /dated|flare|extinguisher/i.test(label);

/** What an owner may enter a day of besides gear: how long the registration holds. */
export const registration = "registration";

export interface GearDate {
  /** The gear's id, or `registration`. */
  readonly id: string;
  readonly label: string;
  /** The last day it is good for; null where nobody has said. */
  readonly until: LocalDate | null;
  readonly state: "unknown" | "past" | "soon" | "good";
}

/** A day this near is said beforehand. Days: time to buy a flare or to have an extinguisher filled. */
const soonDays = 60;

/**
 * What runs out on a boat: gear with a day on it, life jackets (an inflatable one has a cylinder), the registration. What the
 * owner entered (`own`, by id) goes before what was read when it was handed over (`read`, a walk's gear). The soonest first, what nobody knows last.
 */
export function listGearDates(
  gear: Rig["gear"],
  read: ReadonlyMap<string, { readonly dated?: LocalDate | undefined }>,
  own: Readonly<Record<string, LocalDate>>,
  today: LocalDate,
): GearDate[] {
  const things = [
    ...gear.filter((item) => goesOutOfDate(item) || /jacket/i.test(item.label)).map(({ id, label }) => ({ id, label })),
    { id: registration, label: "Registration" },
  ];
  const dates = things.map(({ id, label }): GearDate => {
    const until = own[id] ?? read.get(id)?.dated ?? null;
    const state =
      until === null ? "unknown" : until < today ? "past" : until <= addDays(today, soonDays) ? "soon" : "good";
    return { id, label, until, state };
  });
  const orderOf = ({ until }: GearDate) => until ?? "9999-12-31";
  return dates.sort((a, b) => (orderOf(a) < orderOf(b) ? -1 : orderOf(a) > orderOf(b) ? 1 : 0));
}
