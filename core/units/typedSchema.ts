import { z } from "zod";
import { unitIds } from "./units.ts";

/** `Typed` as it comes from outside. */
export const typedSchema = z.strictObject({ value: z.number().min(-1e6).max(1e6), unit: z.enum(unitIds) });
