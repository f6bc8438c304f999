import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { type Condition, conditionSchema, createMoveMap, findStation, hasBehind, isMet, rigSchema } from "./index.ts";

const rig = rigTemplates["wending-23"];

describe("the 23 ft centre console", () => {
  it("is the boat it says it is", () => {
    expect(rig.panel).toHaveLength(14);
    expect(rig.panel.filter((item) => !hasBehind(item))).toHaveLength(2);
    expect(rig.panel.filter(({ kind }) => kind === "lamp")).toHaveLength(1);
    expect(rig.panel.filter(({ kind }) => kind === "three-position").length).toBeGreaterThan(1);
    expect(rig.breakers).toHaveLength(12);
    expect(rig.batteries).toHaveLength(3);
    expect(rig.throughHulls).toHaveLength(2);
    expect(rig.engines).toHaveLength(2);
    expect(rig.trailer).toMatchObject({ axles: 2, brakes: "surge" });
  });

  it("has every part aboard within the hull line, but what hangs on the transom", () => {
    const outside = rig.parts.filter(({ at }) => !isWithinHull(rig, at)).map(({ id }) => id);
    expect(outside.sort()).toEqual(["drain-plug", "flush-ports"]);
  });

  it("feeds each load that a switch powers from a breaker", () => {
    const fed = new Set(rig.breakers.flatMap(({ feeds }) => feeds));
    const wanted = rig.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers));
    expect(wanted.filter((load) => !fed.has(load))).toEqual([]);
  });
});

describe("rigSchema", () => {
  const issuesOf = (change: object) =>
    rigSchema.safeParse({ ...rig, ...change }).error?.issues.map(({ path, message }) => `${path.join(".")} ${message}`);
  it("names the place of what is wrong", () => {
    expect(issuesOf({})).toBeUndefined();
    expect(issuesOf({ parts: [{ ...rig.parts[0], station: "moon" }, ...rig.parts.slice(1)] })).toEqual([
      'parts.0.station no station "moon"',
    ]);
    expect(issuesOf({ model: "<script>" })?.[0]).toContain("model must not hold markup");
    expect(issuesOf({ model: "x".repeat(1_000_000) })?.[0]).toContain("at most 60");
    expect(issuesOf({ colour: "blue" })?.[0]).toContain("Unrecognized key");
    expect(issuesOf({ breakers: [{ ...rig.breakers[0], feeds: ["warp"] }] })).toEqual([
      'breakers.0.feeds.0 no load "warp"',
    ]);
  });
});

describe("isMet", () => {
  it.each<[Condition, boolean]>([
    [{ has: "windlass" }, true],
    [{ has: "charger-socket" }, false],
    [{ count: "battery", atLeast: 3 }, true],
    [{ count: "battery", atLeast: 4 }, false],
    [{ equals: "trailer.brakes", value: "surge" }, true],
    [{ equals: "trailer", value: null }, false],
    [{ atLeast: "engines", value: 2 }, true],
    [{ atLeast: "loaM", value: 7.5 }, false],
    [{ any: [{ has: "charger-socket" }, { has: "head" }] }, true],
    [{ all: [{ has: "charger-socket" }, { has: "head" }] }, false],
    [{ all: [] }, true],
    [{ not: { has: "head" } }, false],
    [{ equals: "no.such.path", value: null }, true],
  ])("%j → %s", (condition, answer) => {
    expect(conditionSchema.parse(condition)).toEqual(condition);
    expect(isMet(condition, rig)).toBe(answer);
  });

  it("refuses a condition with two questions in it", () => {
    expect(conditionSchema.safeParse({ has: "head", count: "battery", atLeast: 1 }).success).toBe(false);
  });
});

describe("createMoveMap", () => {
  const map = createMoveMap(rig);
  const index = (kind: (typeof rig.stations)[number]["kind"]) => rig.stations.indexOf(findStation(rig, [kind])!);

  it("makes climbing aboard cost more than walking along", () => {
    const climb = map.moveMin[index("transom")]![index("helm")]!;
    const aboard = map.moveMin[index("cockpit")]![index("helm")]!;
    expect(climb).toBeGreaterThan(aboard + 0.9);
    expect(map.moveMin.every((row, i) => row[i] === 0)).toBe(true);
  });

  it("goes round the hull on the ground, never through it", () => {
    const way = map.course(index("wheels"), index("engines"));
    for (let i = 1; i < way.length; i++) {
      for (let t = 0.1; t < 1; t += 0.1) {
        const at = {
          xM: way[i - 1]!.xM + (way[i]!.xM - way[i - 1]!.xM) * t,
          yM: way[i - 1]!.yM + (way[i]!.yM - way[i - 1]!.yM) * t,
        };
        expect(isWithinHull(rig, at), JSON.stringify(at)).toBe(false);
      }
    }
  });

  it("ends every course where it should", () => {
    rig.stations.forEach((from, i) => {
      rig.stations.forEach((to, j) => {
        const way = map.course(i, j);
        expect(way[0]).toEqual(from.at);
        expect(way.at(-1)).toEqual(to.at);
      });
    });
  });
});
