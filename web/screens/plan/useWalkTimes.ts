import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { wrap } from "comlink";
import type { Delivery } from "../../../api/index.ts";
import type { WalkTimes } from "../../../core/route/index.ts";
import type { WalkTimeWorker } from "../../workers/walkTime.ts";

export interface WalkTimesRead {
  /** Null until they are worked out for the first time. */
  readonly times: WalkTimes | null;
  /** They are of the plan before, while those of this one are worked out. */
  readonly isBefore: boolean;
}

/** The spread of this walk's time, worked out beside the page. */
export function useWalkTimes({ id, plan, topics }: Delivery): WalkTimesRead {
  const minutesOf = new Map(topics.map((topic) => [topic.id, topic.minutes]));
  const topicMin = plan.visits.flatMap(({ topics: told }) => told.map((topic) => minutesOf.get(topic) ?? 0));
  const times = useQuery({
    queryKey: ["walk-times", id, plan.moveMin, topicMin],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const worker = new Worker(new URL("../../workers/walkTime.ts", import.meta.url), { type: "module" });
      try {
        return await wrap<WalkTimeWorker>(worker).simulate(topicMin, plan.moveMin);
      } finally {
        worker.terminate();
      }
    },
  });
  return { times: times.data ?? null, isBefore: times.isPlaceholderData };
}
