import { z } from "zod";
import { unitSystems } from "./unitSystems.ts";

/** How a store measures, spells, counts money and writes days. It changes how things are shown, never what is kept. */
export const regionSchema = z.strictObject({
  /** us: feet and inches, pounds, US gallons, °F, psi; imperial: feet and inches, pounds, Imperial gallons, °C, psi; metric. */
  units: z.enum(unitSystems),
  spelling: z.enum(["us", "uk"]),
  /** ISO 4217. */
  currency: z.string().regex(/^[A-Z]{3}$/, "must be three capital letters, such as USD"),
  paper: z.enum(["letter", "a4"]),
  /** The first day of the week: 0 Monday to 6 Sunday. */
  weekStart: z.int().min(0).max(6),
  dateOrder: z.enum(["mdy", "dmy", "ymd"]),
  /** 12: 9:05 am; 24: 09:05. */
  clock: z.enum(["12", "24"]),
  /** Whom one rings ashore where life is in danger. */
  emergency: z.string().regex(/^\+?[\d -]{2,20}$/, "must be a number to ring, such as 112"),
});
export type Region = z.infer<typeof regionSchema>;
