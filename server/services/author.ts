import type { EntryRole } from "../../core/walk/index.ts";
import { ownerId } from "../../core/walk/index.ts";
import type { Person } from "../repositories/people.ts";

/** Who an entry of the owner page is from. */
export const ownerPerson = { id: ownerId, name: "Owner", role: "owner-page" } as const;
export type Author = Pick<Person, "id" | "name"> & { readonly role: EntryRole };
