import { type Role, roles } from "../core/walk/roles.ts";

/** Who may do what, under the name of what they do: endpoints ask for these, and screens show what they may. */
export const everyone: readonly Role[] = roles;
export const owners = ["owner"] as const satisfies readonly Role[];
/** Take in what is sold or in stock. */
export const sellers = ["owner", "sales"] as const satisfies readonly Role[];
/** Plan handovers. */
export const planners = ["owner", "sales", "delivery"] as const satisfies readonly Role[];
/** Give an owner their page. */
export const walkers = ["owner", "sales", "delivery", "service"] as const satisfies readonly Role[];
/** Describe boats. */
export const describers = ["owner", "sales", "delivery", "technician"] as const satisfies readonly Role[];
/** Enter and correct what was done on engines. */
export const mechanics = ["owner", "technician", "service"] as const satisfies readonly Role[];
/** Write what is said: topics, packs, messages. */
export const authors = ["owner", "delivery", "service"] as const satisfies readonly Role[];
/** Book slots in the workshop. */
export const bookers = ["owner", "sales", "service", "technician"] as const satisfies readonly Role[];
/** Keep the workshop's hours and the store's calendar. */
export const keepers = ["owner", "service"] as const satisfies readonly Role[];

export const isOneOf = (who: readonly Role[], role: string): boolean => who.includes(role as Role);
