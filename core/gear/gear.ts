import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";

const idSchema = z.string().min(1).max(200);
const count = z.int().min(0).max(100_000);

/** What a rule asks for, and of which trips and boats. */
export const gearRuleSchema = z.strictObject({
  id: idSchema,
  need: z.enum(["count", "one"]),
  per: z.enum(["person", "adult", "child", "boat"]).optional(),
  qty: count.optional(),
  when: z
    .strictObject({
      minLoaM: z.number().optional(),
      maxLoaM: z.number().optional(),
      enclosedFuel: z.boolean().optional(),
      night: z.boolean().optional(),
      offshoreNmOver: z.number().optional(),
      engine: z.boolean().optional(),
    })
    .optional(),
});

/** Input of the contract `gear`: rules, who goes and how far, the boat, and what is aboard with the dates on it. */
export const gearInputSchema = z
  .strictObject({
    rules: z.array(gearRuleSchema).max(1000),
    trip: z.strictObject({ adults: count, children: count, night: z.boolean(), offshoreNm: z.number().min(0) }),
    boat: z.strictObject({ loaM: z.number().positive(), enclosedFuel: z.boolean(), engine: z.boolean() }),
    aboard: z.array(z.strictObject({ rule: idSchema, qty: count, expires: localDateSchema.optional() })).max(10_000),
    today: localDateSchema,
  })
  .superRefine(({ rules }, check) => {
    const seen = new Set<string>();
    rules.forEach(({ id }, i) => {
      if (seen.has(id)) check.addIssue({ code: "custom", path: ["rules", i, "id"], message: `"${id}" is used twice` });
      seen.add(id);
    });
  });
export const gearOutputSchema = z.strictObject({
  items: z.array(
    z.strictObject({
      rule: idSchema,
      needed: z.number(),
      good: z.number(),
      expired: z.number(),
      missing: z.number().min(0),
    }),
  ),
  ready: z.boolean(),
});
export type GearRule = z.infer<typeof gearRuleSchema>;
export type GearInput = z.infer<typeof gearInputSchema>;
export type GearOutput = z.infer<typeof gearOutputSchema>;

/**
 * Is the safety gear aboard (contract `gear`)? What each rule that applies to this trip asks for, what of it is good and what
 * is out of date: that counts as none. A day printed on a thing is its last good one.
 */
export function gear({ rules, trip, boat, aboard, today }: GearInput): GearOutput {
  const items = rules
    .filter((rule) => applies(rule, trip, boat))
    .map((rule) => {
      const sum = (isGood: boolean) =>
        aboard
          .filter((each) => each.rule === rule.id && (each.expires === undefined || each.expires >= today) === isGood)
          .reduce((all, { qty }) => all + qty, 0);
      const needed = countNeeded(rule, trip);
      const good = sum(true);
      return { rule: rule.id, needed, good, expired: sum(false), missing: Math.max(0, needed - good) };
    });
  return { items, ready: items.every(({ missing }) => missing === 0) };
}

function applies({ when = {} }: GearRule, trip: GearInput["trip"], boat: GearInput["boat"]): boolean {
  const { minLoaM, maxLoaM, enclosedFuel, night, offshoreNmOver, engine } = when;
  return (
    (minLoaM === undefined || minLoaM <= boat.loaM) &&
    (maxLoaM === undefined || boat.loaM < maxLoaM) &&
    (enclosedFuel === undefined || enclosedFuel === boat.enclosedFuel) &&
    (night === undefined || night === trip.night) &&
    (engine === undefined || engine === boat.engine) &&
    (offshoreNmOver === undefined || trip.offshoreNm > offshoreNmOver)
  );
}

function countNeeded({ need, per = "boat", qty = 1 }: GearRule, { adults, children }: GearInput["trip"]): number {
  if (need === "one") return 1;
  return qty * { person: adults + children, adult: adults, child: children, boat: 1 }[per];
}
