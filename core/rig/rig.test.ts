import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { createRandom } from "../random.ts";
import {
  type Condition,
  conditionSchema,
  createMoveMap,
  explainCondition,
  findStation,
  hasBehind,
  isMet,
  partKinds,
  rigSchema,
} from "./index.ts";

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

  it("feeds each load that a switch powers from a breaker", () => {
    const fed = new Set(rig.breakers.flatMap(({ feeds }) => feeds));
    const wanted = rig.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers));
    expect(wanted.filter((load) => !fed.has(load))).toEqual([]);
  });
});

describe.each(Object.entries(rigTemplates))("the template %s", (_, template) => {
  it("has every part within its outline, but what hangs on the transom", () => {
    const hangs: readonly string[] = [
      "plug",
      "flush-port",
      "ladder",
      "swim-platform",
      "transducer",
      "steering",
      "travel-support",
    ];
    for (const { id, kind, at } of template.parts) {
      if (isWithinHull(template, at)) continue;
      expect(hangs, `${id} at ${at.xM}, ${at.yM}`).toContain(kind);
      expect(at.xM).toBeGreaterThan(-0.7);
    }
  });

  it("has those aboard stand within its outline and those on the ground outside", () => {
    for (const { id, at, level } of template.stations) expect(isWithinHull(template, at), id).toBe(level === "aboard");
    expect(isWithinHull(template, template.boarding)).toBe(true);
  });

  it("has a way between any two stations", () => {
    const { moveMin } = createMoveMap(template);
    for (const row of moveMin) for (const minutes of row) expect(minutes).toBeLessThan(6);
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
    [{ has: "galley" }, false],
    [{ count: "battery", atLeast: 3 }, true],
    [{ count: "battery", atLeast: 4 }, false],
    [{ equals: "trailer.brakes", value: "surge" }, true],
    [{ equals: "trailer", value: null }, false],
    [{ atLeast: "engines", value: 2 }, true],
    [{ atLeast: "loaM", value: 7.5 }, false],
    [{ any: [{ has: "galley" }, { has: "head" }] }, true],
    [{ all: [{ has: "galley" }, { has: "head" }] }, false],
    [{ all: [] }, true],
    [{ not: { has: "head" } }, false],
    [{ equals: "no.such.path", value: null }, true],
    [{ equals: "engines.kind", value: "outboard" }, true],
    [{ equals: "engines.kind", value: "kicker" }, false],
    [{ atLeast: "engines.ratedRpm.to", value: 6000 }, true],
    [{ atLeast: "no.such.path", value: 0 }, false],
  ])("%j → %s", (condition, answer) => {
    expect(conditionSchema.parse(condition)).toEqual(condition);
    expect(isMet(condition, rig)).toBe(answer);
  });

  it("refuses a condition with two questions in it", () => {
    expect(conditionSchema.safeParse({ has: "head", count: "battery", atLeast: 1 }).success).toBe(false);
  });
});

describe("explainCondition", () => {
  it.each<[Condition, string[]]>([
    [{ has: "windlass" }, ["it has a windlass (Windlass)"]],
    [{ has: "bow-motor" }, ["it has no bow motor"]],
    [{ not: { has: "head" } }, ["it has a head (toilet) (Head)"]],
    [{ count: "battery", atLeast: 4 }, ["it has fewer than 4: battery"]],
    [{ equals: "engines.kind", value: "kicker" }, ["it has no kicker"]],
    [{ equals: "trailer", value: null }, ["it is on a trailer"]],
    [{ equals: "trailer.brakes", value: "surge" }, ["it has surge brakes on the trailer"]],
    [{ atLeast: "engines", value: 2 }, ["it has two engines or more"]],
    [{ all: [] }, ["every boat has it"]],
    [{ all: [{ has: "head" }, { has: "galley" }, { has: "berth" }] }, ["it has no stove", "it has no berth"]],
    [{ any: [{ has: "galley" }, { has: "head" }] }, ["it has a head (toilet) (Head)"]],
  ])("%j → %j", (condition, facts) => expect(explainCondition(condition, rig)).toEqual(facts));
});

describe("any condition", () => {
  it("is met exactly when its opposite is not, and always has a reason", () => {
    const random = createRandom(77);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const grow = (depth: number): Condition => {
      const leaves: Condition[] = [
        { has: pick(partKinds) },
        { count: pick(partKinds), atLeast: 1 + Math.floor(random() * 3) },
        {
          equals: pick(["family", "engines.kind", "trailer.brakes", "enclosedFuel"]),
          value: pick(["cuddy", "outboard", true]),
        },
        { atLeast: pick(["engines", "batteries", "loaM", "trailer.axles"]), value: Math.floor(random() * 8) },
      ];
      if (depth === 0 || random() < 0.3) return pick(leaves);
      const inner = Array.from({ length: 1 + Math.floor(random() * 3) }, () => grow(depth - 1));
      return pick<Condition>([{ any: inner }, { all: inner }, { not: inner[0]! }]);
    };
    for (let i = 0; i < 300; i++) {
      const condition = grow(3);
      const boat = pick(Object.values(rigTemplates));
      expect(isMet({ not: condition }, boat), JSON.stringify(condition)).toBe(!isMet(condition, boat));
      expect(explainCondition(condition, boat).length, JSON.stringify(condition)).toBeGreaterThan(0);
      expect(conditionSchema.safeParse(condition).success).toBe(true);
    }
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
