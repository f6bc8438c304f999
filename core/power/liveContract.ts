import { z } from "zod";

const idSchema = z.string().min(1).max(200);

/** A wire, fuse, breaker or switch between two nodes. */
export const linkSchema = z.strictObject({
  id: idSchema,
  a: idSchema,
  b: idSchema,
  kind: z.enum(["wire", "fuse", "breaker", "switch"]),
  /** Of a switch: which one, and the positions in which it conducts here. */
  switch: idSchema.optional(),
  closedIn: z.array(idSchema).max(50).optional(),
  tripped: z.boolean().optional(),
});

/** Input of the contract `live`. Capacity in ampere-hours at the 20-hour rate, charge as a share of it, loads in amps. */
export const liveInputSchema = z
  .strictObject({
    batteries: z
      .array(
        z.strictObject({
          id: idSchema,
          node: idSchema,
          capacityAh: z.number().positive().max(1e6),
          chemistry: z.enum(["flooded", "agm", "lifepo4"]),
          chargeShare: z.number().min(0).max(1),
        }),
      )
      .max(1000),
    switches: z
      .array(z.strictObject({ id: idSchema, positions: z.array(idSchema).min(1).max(50), position: idSchema }))
      .max(1000),
    links: z.array(linkSchema).max(10_000),
    loads: z
      .array(z.strictObject({ id: idSchema, node: idSchema, amps: z.number().min(0).max(1e6), on: z.boolean() }))
      .max(10_000),
  })
  .superRefine((input, check) => {
    const say = (path: (string | number)[], message: string) => check.addIssue({ code: "custom", path, message });
    for (const name of ["batteries", "switches", "links", "loads"] as const) {
      const seen = new Set<string>();
      input[name].forEach(({ id }, i) => {
        if (seen.has(id)) say([name, i, "id"], `"${id}" is used twice`);
        seen.add(id);
      });
    }
    const switches = new Set(input.switches.map(({ id }) => id));
    input.switches.forEach(({ position, positions }, i) => {
      if (!positions.includes(position)) say(["switches", i, "position"], `no position "${position}"`);
    });
    input.links.forEach((link, i) => {
      if (link.kind !== "switch") return;
      if (link.switch === undefined) say(["links", i, "switch"], "a switch link must name its switch");
      else if (!switches.has(link.switch)) say(["links", i, "switch"], `no switch "${link.switch}"`);
    });
  });

export const liveOutputSchema = z.strictObject({
  live: z.array(idSchema),
  dead: z.array(idSchema),
  drawA: z.record(idSchema, z.number()),
});

export type LiveInput = z.infer<typeof liveInputSchema>;
export type LiveOutput = z.infer<typeof liveOutputSchema>;
