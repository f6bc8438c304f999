import { z } from "zod";
import { plainText } from "../rig/index.ts";

const kg = z.number().positive().max(100_000);
const lengthM = z.number().positive().max(20);

/** The buyer's car as its plates say it; what nobody has read yet is left out. Masses in kg, lengths in metres, balls in mm. */
export const vehicleSchema = z.strictObject({
  name: plainText(60),
  /** As it stands ready to drive, with its driver, and what else rides in it. */
  kg: kg.optional(),
  loadKg: z.number().min(0).max(10_000).optional(),
  payloadKg: kg.optional(),
  towLimitKg: kg.optional(),
  brakelessLimitKg: z.number().min(0).max(100_000).optional(),
  tongueLimitKg: kg.optional(),
  combinedLimitKg: kg.optional(),
  hitchLimitKg: kg.optional(),
  ballMm: z.number().positive().max(120).optional(),
  ballLimitKg: kg.optional(),
  pins: z.int().min(0).max(20).optional(),
  hitchToRearAxleM: lengthM.optional(),
  /** How deep its rear wheels may stand. */
  wadeLimitM: lengthM.optional(),
});
export type Vehicle = z.infer<typeof vehicleSchema>;
