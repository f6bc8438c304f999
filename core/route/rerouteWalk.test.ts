import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { createMoveMap, findStation, type Rig } from "../rig/index.ts";
import { findTopicStation, type Topic } from "../topic/index.ts";
import { findStyle, listTopicsFor, type RouteVisit, rerouteWalk } from "./index.ts";

const rig = rigTemplates["wending-23"];
const aboard = listTopicsFor(rig, library);
const style = findStyle("sweep");

/** Shortest minutes between stations, walking past others allowed. */
function shortest(of: Rig): Map<string, Map<string, number>> {
  const { moveMin } = createMoveMap(of);
  const least = moveMin.map((row) => [...row]);
  for (const k of least.keys())
    for (const i of least.keys())
      for (const j of least.keys()) least[i]![j] = Math.min(least[i]![j]!, least[i]![k]! + least[k]![j]!);
  const ids = of.stations.map(({ id }) => id);
  return new Map(ids.map((id, i) => [id, new Map(ids.map((to, j) => [to, i === j ? 0 : least[i]![j]!]))]));
}
const minutes = shortest(rig);
const stationOf = (topic: Topic) => findTopicStation(rig, topic)!.id;

function measure(stations: readonly string[]): number {
  return stations.slice(1).reduce((sum, to, i) => sum + minutes.get(stations[i]!)!.get(to)!, 0);
}

/** The slow way: every order of the topics that keeps what each waits for. */
function leastOf(left: readonly Topic[], from: string, end: string | null): number {
  let least = Number.POSITIVE_INFINITY;
  const ids = new Set(left.map(({ id }) => id));
  const go = (told: readonly Topic[], rest: readonly Topic[]) => {
    if (rest.length === 0) {
      if (end === null || stationOf(told.at(-1)!) === end)
        least = Math.min(least, measure([from, ...told.map(stationOf)]));
      return;
    }
    for (const topic of rest)
      if (topic.after.every((id) => !ids.has(id) || told.some((one) => one.id === id)))
        go(
          [...told, topic],
          rest.filter((one) => one !== topic),
        );
  };
  go([], left);
  return least;
}

function ordered(left: readonly Topic[], from: string): RouteVisit[] {
  const answer = rerouteWalk(rig, left, style, from);
  if (!answer.ok) throw new Error(answer.error.message);
  return answer.value;
}

describe("rerouteWalk", () => {
  it("moves as little as the best of all orders there are, from wherever one stands", () => {
    const endStation = findStation(rig, style.end)?.id ?? null;
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(aboard.length - 1), { minLength: 1, maxLength: 6 }),
        fc.nat(rig.stations.length - 1),
        (picked, at) => {
          const left = picked.map((i) => aboard[i]!);
          const from = rig.stations[at]!.id;
          const visits = ordered(left, from);
          const end = left.some((topic) => stationOf(topic) === endStation) ? endStation : null;
          const best = leastOf(left, from, end);
          // Where the end's own topics must come before others, the walk ends there with nothing more to tell.
          const way = [from, ...visits.map(({ station }) => station), ...(end === null ? [] : [end])];
          if (Number.isFinite(best)) expect(measure(way)).toBeCloseTo(best, 9);
        },
      ),
      { seed: 11, numRuns: 150 },
    );
  });

  it("tells everything left once, at its station, after what it waits for, and nothing that was told", () => {
    fc.assert(
      fc.property(fc.subarray([...aboard], { minLength: 5 }), fc.nat(rig.stations.length - 1), (left, at) => {
        const order = ordered(left, rig.stations[at]!.id).flatMap(({ topics }) => topics);
        expect([...order].sort()).toEqual(left.map(({ id }) => id).sort());
        for (const topic of left)
          for (const before of topic.after)
            if (order.includes(before)) expect(order.indexOf(before)).toBeLessThan(order.indexOf(topic.id));
      }),
      { seed: 12, numRuns: 25 },
    );
  });

  it("goes on where one stands when something of what is left is there and waits for nothing", () => {
    const helm = rig.stations.find(({ kind }) => kind === "helm")!.id;
    expect(ordered(aboard, helm)[0]!.station).toBe(helm);
  });
});
