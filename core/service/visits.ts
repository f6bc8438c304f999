import { z } from "zod";
import { type LocalDate, localDateSchema } from "../dates/index.ts";

const idSchema = z.string().min(1).max(200);

/** Input of the contract `visits`: when each item may be served. */
export const visitsInputSchema = z.strictObject({
  windows: z
    .array(z.strictObject({ id: idSchema, earliest: localDateSchema, latest: localDateSchema }))
    .max(10_000)
    .superRefine((windows, check) => {
      const seen = new Set<string>();
      windows.forEach(({ id, earliest, latest }, i) => {
        if (earliest > latest)
          check.addIssue({ code: "custom", path: [i, "latest"], message: "must not be before earliest" });
        if (seen.has(id)) check.addIssue({ code: "custom", path: [i, "id"], message: `"${id}" is used twice` });
        seen.add(id);
      });
    }),
});
export const visitsOutputSchema = z.strictObject({
  visits: z.array(z.strictObject({ date: localDateSchema, items: z.array(idSchema) })),
});
export type VisitsInput = z.infer<typeof visitsInputSchema>;
export type VisitsOutput = z.infer<typeof visitsOutputSchema>;

/**
 * How few workshop visits do (contract `visits`)? Each date is the latest its items allow, and an item goes with the first
 * date its window holds. Taking the window that ends first, and its end, is the known optimum for stabbing intervals.
 *
 * @example [1st–10th, 5th–20th, 12th–15th] → two visits, on the 10th and the 15th.
 */
export function visits({ windows }: VisitsInput): VisitsOutput {
  const dates: LocalDate[] = [];
  for (const { earliest, latest } of [...windows].sort((a, b) => (a.latest < b.latest ? -1 : 1)))
    if (dates.length === 0 || dates.at(-1)! < earliest) dates.push(latest);
  const items = new Map(dates.map((date) => [date, [] as string[]]));
  for (const { id, earliest } of windows) items.get(dates.find((date) => date >= earliest)!)!.push(id);
  return { visits: dates.map((date) => ({ date, items: items.get(date)! })) };
}
