export { type Handover, handoverSchema, personSchema, writeCanonical } from "./handover.ts";
