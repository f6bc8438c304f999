import { z } from "zod";
import { plainText } from "../rig/index.ts";

export const surfaces = ["concrete", "asphalt", "gravel", "sand", "planks"] as const;

/** A ramp that people of this store launch at. Its grade is measured by rise and run: a level and a tape, or the phone's level. */
export const rampSheetSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/),
  name: plainText(60),
  riseM: z.number().positive().max(5),
  runM: z.number().positive().max(50),
  surface: z.enum(surfaces),
  /** Driving the boat onto its trailer is allowed. */
  isDriveOn: z.boolean(),
  /** Where one makes ready, out of the way. */
  staging: z.string().trim().max(160).default(""),
});
export type RampSheet = z.infer<typeof rampSheetSchema>;

/** Rise over run in per cent. (0.26, 2) → 13. */
export const gradeOf = ({ riseM, runM }: Pick<RampSheet, "riseM" | "runM">): number => (riseM / runM) * 100;
