import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { findStyle, type Plan, planWalk, routeStyles, type StyleId, styleIds } from "./index.ts";

const rig = rigTemplates["wending-23"];

function plan(style: StyleId, of = rig): Plan {
  const planned = planWalk(of, library, findStyle(style));
  if (!planned.ok) throw new Error(planned.error.message);
  return planned.value;
}
const orderOf = ({ visits }: Plan) => visits.flatMap(({ topics }) => topics);

describe("planWalk", () => {
  it.each(styleIds)("%s tells every topic of the boat once, each after what it needs, proven", (style) => {
    const made = plan(style);
    const order = orderOf(made);
    expect(new Set(order).size).toBe(order.length);
    expect([...order, ...made.notHere].sort()).toEqual(library.map(({ id }) => id).sort());
    for (const topic of library) {
      for (const before of topic.after) {
        if (order.includes(topic.id) && order.includes(before))
          expect(order.indexOf(before), `${topic.id} after ${before}`).toBeLessThan(order.indexOf(topic.id));
      }
    }
    expect(made.optimal).toBe(true);
    expect(made.totalMin).toBeCloseTo(made.moveMin + made.topicMin, 9);
  });

  it("keeps what each school is about", () => {
    const stationOf = (style: StyleId) => plan(style).visits.map(({ station }) => station);
    expect(stationOf("power-first")[0]).toBe("bilge");
    expect(stationOf("trailer-first")[0]).toBe("coupler");
    expect(stationOf("storage-tour").at(-1)).not.toBe("coupler");
    const day = orderOf(plan("day-in-the-life"));
    expect(day.indexOf("coupler")).toBeLessThan(day.indexOf("drain-plug"));
    expect(day.indexOf("drain-plug")).toBeLessThan(day.indexOf("start-order"));
    expect(day.indexOf("start-order")).toBeLessThan(day.indexOf("flush"));
    const tour = orderOf(plan("storage-tour"));
    const lastLocker = Math.max(...library.filter(({ storage }) => storage).map(({ id }) => tour.indexOf(id)));
    expect(lastLocker).toBeLessThan(tour.indexOf("panel-order"));
    const trailer = orderOf(plan("trailer-first"));
    expect(trailer.indexOf("chains")).toBeLessThan(trailer.indexOf("panel-order"));
  });

  it("leaves out what the boat does not have", () => {
    const onItsKeel = { ...rig, trailer: null, stations: rig.stations.filter(({ kind }) => kind !== "coupler") };
    const made = plan("power-first", onItsKeel);
    expect(made.notHere).toContain("coupler");
    expect(orderOf(made)).not.toContain("surge-brakes");
    expect(orderOf(made)).toContain("lanyard");
  });

  it("describes each style in one line, in words and not in how it is computed", () => {
    for (const { line } of routeStyles) expect(line).toMatch(/^[A-Z][^_{}]{40,180}\.$/);
    for (const { line } of routeStyles) expect(line).not.toMatch(/\brank\b|Made of/);
  });
});
