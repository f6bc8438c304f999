import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";

const idSchema = z.string().min(1).max(200);
const hoursSchema = z.number().min(0).max(1e6);
const monthsSchema = z.int().min(1).max(1200);

export const dueItemSchema = z.strictObject({
  id: idSchema,
  firstH: hoursSchema.optional(),
  everyH: z.number().positive().max(1e6).optional(),
  firstMonths: monthsSchema.optional(),
  everyMonths: monthsSchema.optional(),
});

/** Input of the contract `due`. Hours are engine hours; `monthlyHours` starts with January. */
export const dueInputSchema = z
  .strictObject({
    inService: localDateSchema,
    today: localDateSchema,
    hoursNow: hoursSchema,
    monthlyHours: z.array(hoursSchema).length(12),
    items: z.array(dueItemSchema).max(1000),
    done: z.array(z.strictObject({ item: idSchema, date: localDateSchema, hours: hoursSchema })).max(10_000),
    soonH: hoursSchema.optional(),
    soonDays: z.number().min(0).max(10_000).optional(),
  })
  .superRefine((input, check) => {
    const ids = new Set<string>();
    input.items.forEach((item, i) => {
      if (ids.has(item.id))
        check.addIssue({ code: "custom", path: ["items", i, "id"], message: `"${item.id}" is used twice` });
      ids.add(item.id);
    });
    input.done.forEach((done, i) => {
      if (!ids.has(done.item))
        check.addIssue({ code: "custom", path: ["done", i, "item"], message: `no item "${done.item}"` });
    });
  });

export const dueStateSchema = z.enum(["overdue", "soon", "ahead", "finished"]);

export const dueOutputSchema = z.strictObject({
  items: z.array(
    z.strictObject({
      id: idSchema,
      targetH: z.number().nullable(),
      hoursDate: localDateSchema.nullable(),
      calendarDate: localDateSchema.nullable(),
      dueDate: localDateSchema.nullable(),
      by: z.enum(["hours", "calendar"]).nullable(),
      state: dueStateSchema,
    }),
  ),
});

export type DueInput = z.infer<typeof dueInputSchema>;
export type DueItem = z.infer<typeof dueItemSchema>;
export type DueOutput = z.infer<typeof dueOutputSchema>;
export type DueState = z.infer<typeof dueStateSchema>;
