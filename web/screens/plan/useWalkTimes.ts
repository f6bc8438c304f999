import { useQuery } from "@tanstack/react-query";
import { wrap } from "comlink";
import type { Delivery } from "../../../api/index.ts";
import type { WalkTimes } from "../../../core/route/index.ts";
import type { WalkTimeWorker } from "../../workers/walkTime.ts";

/** The spread of this walk's time, worked out beside the page; null until it is. */
export function useWalkTimes({ id, plan, topics }: Delivery): WalkTimes | null {
  const minutesOf = new Map(topics.map((topic) => [topic.id, topic.minutes]));
  const topicMin = plan.visits.flatMap(({ topics: told }) => told.map((topic) => minutesOf.get(topic) ?? 0));
  const times = useQuery({
    queryKey: ["walk-times", id, plan.moveMin, topicMin],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      const worker = new Worker(new URL("../../workers/walkTime.ts", import.meta.url), { type: "module" });
      try {
        return await wrap<WalkTimeWorker>(worker).simulate(topicMin, plan.moveMin);
      } finally {
        worker.terminate();
      }
    },
  });
  return times.data ?? null;
}
