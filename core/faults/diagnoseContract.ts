import { z } from "zod";

const idSchema = z.string().min(1).max(200);

/** Input of the contract `diagnose`: parts with how likely each fails, what each function needs, and what was seen. */
export const diagnoseInputSchema = z
  .strictObject({
    components: z
      .array(
        z.strictObject({
          id: idSchema,
          prior: z.number().gt(0).lt(1),
          minutesToCheck: z.number().positive().max(1e6),
        }),
      )
      .max(1000),
    functions: z.array(z.strictObject({ id: idSchema, needs: z.array(idSchema).max(1000) })).max(1000),
    observed: z.array(z.strictObject({ function: idSchema, works: z.boolean() })).max(2000),
    maxFaults: z.int().min(1).max(6).optional(),
  })
  .superRefine((input, check) => {
    const say = (path: (string | number)[], message: string) => check.addIssue({ code: "custom", path, message });
    const once = (name: "components" | "functions") => {
      const seen = new Set<string>();
      input[name].forEach(({ id }, i) => {
        if (seen.has(id)) say([name, i, "id"], `"${id}" is used twice`);
        seen.add(id);
      });
      return seen;
    };
    const components = once("components");
    const functions = once("functions");
    input.functions.forEach(({ needs }, i) => {
      needs.forEach((id, j) => {
        if (!components.has(id)) say(["functions", i, "needs", j], `no component "${id}"`);
      });
    });
    input.observed.forEach((each, i) => {
      if (!functions.has(each.function)) say(["observed", i, "function"], `no function "${each.function}"`);
    });
  });

const shareSchema = z.number().min(0).max(1.000001);
export const diagnoseOutputSchema = z.strictObject({
  candidates: z.array(z.strictObject({ faults: z.array(idSchema), share: shareSchema })),
  checks: z.array(z.strictObject({ component: idSchema, share: shareSchema, minutesToCheck: z.number() })),
});
export type DiagnoseInput = z.infer<typeof diagnoseInputSchema>;
export type DiagnoseOutput = z.infer<typeof diagnoseOutputSchema>;
/** Nothing explains what was seen; `conflicting`: functions that fail although all they need is proven good. */
export type DiagnoseError = { code: "no-explanation"; message: string; conflicting: string[] };
