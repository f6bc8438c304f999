import { z } from "zod";

const idSchema = z.string().min(1).max(200);
const minutesSchema = z.number().min(0).max(1e6);

const stationSchema = z.strictObject({ id: idSchema });

const routeTopicSchema = z.strictObject({
  id: idSchema,
  station: idSchema,
  minutes: minutesSchema,
  after: z.array(idSchema),
  must: z.boolean(),
  value: z.number().min(0).max(1e9),
});

/** Input of the contract `route`. Times in minutes; `moveMin[from][to]`, diagonal ignored. */
export const routeInputSchema = z
  .strictObject({
    stations: z.array(stationSchema).max(60),
    moveMin: z.array(z.array(minutesSchema)),
    topics: z.array(routeTopicSchema).max(2000),
    start: idSchema.optional(),
    end: idSchema.optional(),
    budgetMin: minutesSchema.optional(),
  })
  .superRefine((input, check) => {
    const say = (path: (string | number)[], message: string) => check.addIssue({ code: "custom", path, message });
    const stationIds = new Set<string>();
    input.stations.forEach((station, i) => {
      if (stationIds.has(station.id)) say(["stations", i, "id"], `"${station.id}" is used twice`);
      stationIds.add(station.id);
    });
    if (input.moveMin.length !== input.stations.length)
      say(["moveMin"], `must have ${input.stations.length} rows, one a station, not ${input.moveMin.length}`);
    input.moveMin.forEach((row, i) => {
      if (row.length !== input.stations.length)
        say(["moveMin", i], `must have ${input.stations.length} columns, one a station, not ${row.length}`);
    });
    const topicIds = new Set<string>();
    input.topics.forEach((topic, i) => {
      if (topicIds.has(topic.id)) say(["topics", i, "id"], `"${topic.id}" is used twice`);
      topicIds.add(topic.id);
      if (!stationIds.has(topic.station)) say(["topics", i, "station"], `no station "${topic.station}"`);
    });
    input.topics.forEach((topic, i) => {
      topic.after.forEach((id, j) => {
        if (!topicIds.has(id)) say(["topics", i, "after", j], `no topic "${id}"`);
      });
    });
    if (input.start !== undefined && !stationIds.has(input.start)) say(["start"], `no station "${input.start}"`);
    if (input.end !== undefined && !stationIds.has(input.end)) say(["end"], `no station "${input.end}"`);
  });

export const visitSchema = z.strictObject({ station: idSchema, topics: z.array(idSchema) });

/** Output of the contract `route`. */
export const routeOutputSchema = z.strictObject({
  visits: z.array(visitSchema),
  moveMin: z.number(),
  topicMin: z.number(),
  totalMin: z.number(),
  deferred: z.array(idSchema),
  optimal: z.boolean(),
  overBudgetMin: z.number().optional(),
});

export type RouteInput = z.infer<typeof routeInputSchema>;
export type RouteTopic = RouteInput["topics"][number];
export type RouteOutput = z.infer<typeof routeOutputSchema>;
export type RouteVisit = z.infer<typeof visitSchema>;
