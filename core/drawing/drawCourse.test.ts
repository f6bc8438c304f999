import { describe, expect, it } from "vitest";
import { rigTemplates, topics } from "../../content/index.ts";
import { findStyle, planWalk } from "../route/index.ts";
import { countCrossings } from "./drawCourse.ts";
import { drawCourse, isWithinHull } from "./index.ts";

/** Points along a path of moves and cubic curves, ten to each curve, as [x to starboard, y aft]. */
function trace(d: string): [number, number][] {
  const points: [number, number][] = [];
  let at: [number, number] = [0, 0];
  for (const [, letter, rest] of d.matchAll(/([MLC])([^MLC]*)/g)) {
    const n = rest!.trim().split(/[ ,]+/).map(Number);
    if (letter !== "C") {
      for (let i = 0; i + 1 < n.length; i += 2) {
        at = [n[i]!, n[i + 1]!];
        points.push(at);
      }
      continue;
    }
    for (let i = 0; i + 5 < n.length; i += 6) {
      const [x0, y0] = at;
      for (let t = 0.1; t <= 1.001; t += 0.1) {
        const u = 1 - t;
        const mix = (p0: number, p1: number, p2: number, p3: number) =>
          u ** 3 * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t ** 3 * p3;
        points.push([mix(x0, n[i]!, n[i + 2]!, n[i + 4]!), mix(y0, n[i + 1]!, n[i + 3]!, n[i + 5]!)]);
      }
      at = [n[i + 4]!, n[i + 5]!];
    }
  }
  return points;
}

describe.each(Object.entries(rigTemplates))("the course on %s", (_, rig) => {
  const planned = planWalk(rig, topics, findStyle("sweep"));
  if (!planned.ok) throw new Error(planned.error.message);
  const { visits } = planned.value;
  const legs = drawCourse(rig, visits);
  const station = (i: number) => rig.stations.find(({ id }) => id === visits[i]!.station)!;

  it("has a leg for each move, from one stop to the next", () => {
    expect(legs).toHaveLength(visits.length - 1);
    legs.forEach((d, i) => {
      const points = trace(d);
      const ends = [points[0]!, points.at(-1)!];
      [station(i), station(i + 1)].forEach(({ at }, k) => {
        expect(ends[k]![0]).toBeCloseTo(at.yM, 2);
        expect(ends[k]![1]).toBeCloseTo(-at.xM, 2);
      });
    });
  });

  it("stays off the deck between two places on the ground", () => {
    const inner = { ...rig, beamM: rig.beamM * 0.86 };
    legs.forEach((d, i) => {
      if (station(i).level !== "ground" || station(i + 1).level !== "ground") return;
      for (const [x, y] of trace(d)) expect(isWithinHull(inner, { xM: -y, yM: x }), `leg ${i}`).toBe(false);
    });
  });

  it("crosses itself only where no leg drawn otherwise would spare it, and never more often than drawn the usual way", () => {
    const { crossings, ways } = countCrossings(rig, visits);
    expect(crossings).toBeLessThanOrEqual(
      countCrossings(
        rig,
        visits,
        ways.map(() => 0),
      ).crossings,
    );
    for (let leg = 0; leg < ways.length; leg++)
      for (let way = 0; way < 9; way++) {
        const otherwise = ways.map((each, i) => (i === leg ? way : each));
        expect(countCrossings(rig, visits, otherwise).crossings, `leg ${leg}`).toBeGreaterThanOrEqual(crossings);
      }
  });

  it("draws nothing for a walk of one stop or none", () => {
    expect([drawCourse(rig, []), drawCourse(rig, visits.slice(0, 1))]).toEqual([[], []]);
  });
});
