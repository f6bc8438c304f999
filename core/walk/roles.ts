import type { EntryKind } from "./entry.ts";

/** Who works at a store. */
export const roles = ["owner", "sales", "delivery", "technician", "service"] as const;
export type Role = (typeof roles)[number];
/** And the owner's own page. */
export type EntryRole = Role | "owner-page";

/** Kinds that not everybody of the store may enter: to let a boat go that is not ready, and to close. */
const reserved: Partial<Record<EntryKind, readonly Role[]>> = {
  allow: ["owner"],
  close: ["owner", "sales", "delivery"],
};
/** Kinds that an owner may enter on their own page. */
const ofOwnerPage: readonly EntryKind[] = ["remote", "ask", "inspect", "photo"];

/** Which roles of the store may enter a kind of entry. */
export const whoMayEnter = (kind: EntryKind): readonly Role[] => reserved[kind] ?? roles;

export const mayEnter = (kind: EntryKind, role: EntryRole): boolean =>
  role === "owner-page" ? ofOwnerPage.includes(kind) : whoMayEnter(kind).includes(role);
