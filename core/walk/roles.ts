import type { EntryKind } from "./entry.ts";

/** Who works at a store. */
export const roles = ["owner", "sales", "delivery", "technician", "service"] as const;
export type Role = (typeof roles)[number];
/** And the owner's own page. */
export type EntryRole = Role | "owner-page";

/** Who may let a boat go that is not ready, where the store has not said otherwise. */
export const usualAllowers: readonly Role[] = ["owner"];
/** Other kinds that not everybody of the store may enter: to close; and what the format knows and nobody makes yet. */
const reserved: Partial<Record<EntryKind, readonly Role[]>> = {
  close: ["owner", "sales", "delivery"],
  rehearsed: [],
  watched: [],
  answered: [],
};
/** Who may take back what another entered, with a reason: whoever may close. */
export const correctors: readonly Role[] = reserved.close!;

/** Kinds that an owner may enter on their own page. */
const ofOwnerPage: readonly EntryKind[] = ["remote", "ask", "inspect", "photo", "step", "trip"];

/** Which roles of the store may enter a kind of entry. `allowers`: who may let a boat go that is not ready, as the store says. */
export const whoMayEnter = (kind: EntryKind, allowers: readonly Role[]): readonly Role[] =>
  kind === "allow" ? allowers : (reserved[kind] ?? roles);

export const mayEnter = (kind: EntryKind, role: EntryRole, allowers: readonly Role[]): boolean =>
  role === "owner-page" ? ofOwnerPage.includes(kind) : whoMayEnter(kind, allowers).includes(role);
