import { contactSchema } from "../../api/careSchemas.ts";
import type { Contact } from "../../api/index.ts";

/** Whom a boat's contact names, and how they are reached; of one without any all is empty. */
export const contactOf = (boat: { readonly contact: string }): Contact => contactSchema.parse(JSON.parse(boat.contact));
