import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";
import { plainText } from "../rig/index.ts";

const clockSchema = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, "must be a time written HH:MM");
/** Past midnight it goes on as 24:30. */
const laterClockSchema = z.string().regex(/^\d{2}:[0-5]\d$/, "must be a time written HH:MM");

/** Where the figures of the wind come from. `made-up` is the demo's stand-in, and is called that wherever it is shown. */
export const windSources = ["typed", "file", "made-up"] as const;

/** A day out as somebody plans it: who, where to, when, with what. Sea miles, knots, litres, hours, metres, kg. */
export const tripPlanSchema = z
  .strictObject({
    name: plainText(80),
    date: localDateSchema,
    departAt: clockSchema,
    /** Where it begins, for the sun; null where nobody has said. */
    from: z.strictObject({ lat: z.number().min(-90).max(90), lon: z.number().min(-180).max(180) }).nullable(),
    /** Out; the way back is the same. */
    legs: z
      .array(
        z.strictObject({
          to: plainText(60),
          nm: z.number().min(0).max(500),
          courseDeg: z.number().min(0).max(360).optional(),
        }),
      )
      .max(30),
    cruiseKn: z.number().positive().max(80),
    burnLph: z.number().min(0).max(1000),
    fuelL: z.number().min(0).max(5000),
    stayH: z.number().min(0).max(72),
    wind: z
      .array(
        z.strictObject({
          at: laterClockSchema,
          kn: z.number().min(0).max(150),
          fromDeg: z.number().min(0).max(360).optional(),
        }),
      )
      .max(100),
    windSource: z.enum(windSources),
    /** The day on which somebody looked at it; null while nobody has. */
    windOn: localDateSchema.nullable(),
    windLimitKn: z.number().positive().max(100),
    anchor: z
      .strictObject({
        depthM: z.number().min(0).max(200),
        tideRiseM: z.number().min(0).max(20),
        bowHeightM: z.number().min(0).max(10),
        scope: z.number().min(3).max(12),
      })
      .nullable(),
    /** Who is aboard. A child is one by the law of the place; weight says which jacket fits. */
    people: z
      .array(z.strictObject({ name: plainText(80), isChild: z.boolean(), kg: z.number().min(3).max(250).optional() }))
      .max(40),
    gearPack: z.string().max(60),
    offshoreNm: z.number().min(0).max(500),
    /** Gear as it is aboard for this trip, by the rig's own list; what is not named counts as it was counted at the handover. */
    aboard: z
      .array(
        z.strictObject({ item: z.string().max(60), qty: z.int().min(0).max(999), expires: localDateSchema.optional() }),
      )
      .max(80),
    ashore: z.strictObject({ name: plainText(80), phone: plainText(40) }).nullable(),
  })
  .superRefine(({ wind }, check) => {
    wind.forEach(({ at }, i) => {
      if (i > 0 && at <= wind[i - 1]!.at)
        check.addIssue({ code: "custom", path: ["wind", i, "at"], message: "must be later than the one before" });
    });
  });
export type TripPlan = z.infer<typeof tripPlanSchema>;
