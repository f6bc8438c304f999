import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import type { Rig } from "../rig/index.ts";
import { drawWiring } from "./drawWiring.ts";
import {
  askEndurance,
  askLive,
  compareSelectors,
  type Drain,
  derate,
  explainPower,
  listCharging,
  listDrawing,
  live,
  type PowerSetting,
  turnAllOff,
} from "./index.ts";

const twin = rigTemplates["wending-23"];
const plain: PowerSetting = { positions: {}, tripped: [], loose: [], charge: {} };
const off = (rig: Rig) => turnAllOff(rig, plain);
const set = (setting: PowerSetting, positions: Record<string, string>): PowerSetting => ({
  ...setting,
  positions: { ...setting.positions, ...positions },
});
const of = (rig: Rig, setting: PowerSetting, load: string) =>
  explainPower(rig, setting).find((each) => each.load === load)!;

describe("why a load has power, or none", () => {
  it("with everything off says what stays live, and through what", () => {
    const stays = explainPower(twin, off(twin)).filter(({ isLive }) => isLive);
    expect(stays.map(({ load }) => load)).toEqual(["bilge-auto", "stereo-memory"]);
    expect(stays[0]).toMatchObject({
      batteries: ["house"],
      through: ["Bilge pump, 7 A", "Bilge at Auto"],
      staysLive: true,
    });
  });

  it("names what is open, nearest to the battery first", () => {
    expect(of(twin, off(twin), "anchor-light").missing).toEqual(["House at Off", "Nav / anchor at Off"]);
    const on = set(off(twin), { house: "On", "sw-lights": "Anchor" });
    expect(of(twin, on, "anchor-light")).toMatchObject({
      isLive: true,
      through: ["House at On", "Lights, 15 A", "Nav / anchor at Anchor"],
      missing: [],
    });
    expect(of(twin, { ...on, tripped: ["br-lights"] }, "anchor-light").missing).toEqual(["Lights, 15 A, tripped"]);
    expect(of(twin, { ...on, loose: ["house"] }, "anchor-light").missing).toEqual(["a clamp of House is off"]);
    expect(of(twin, { ...on, wiresOff: ["anchor-light"] }, "anchor-light")).toMatchObject({
      isLive: false,
      missing: ["the wire at Anchor light is off"],
    });
    expect(of(twin, { ...off(twin), wiresOff: ["anchor-light"] }, "anchor-light").missing.at(-1)).toMatch(/wire at/);
    expect(of(twin, { ...on, charge: { house: 0 } }, "anchor-light").missing).toEqual(["House is empty"]);
  });

  it("a breaker that also feeds past the switch trips for both", () => {
    const tripped = { ...off(twin), tripped: ["br-bilge"] };
    expect(of(twin, tripped, "bilge-auto")).toMatchObject({ isLive: false, missing: ["Bilge pump, 7 A, tripped"] });
  });

  it("agrees with live for every template, setting and fault, and always has a reason", () => {
    for (const rig of Object.values(rigTemplates))
      for (const setting of [off(rig), plain, { ...plain, tripped: rig.breakers.map(({ id }) => id) }]) {
        const answer = live(askLive(rig, setting));
        const reasons = explainPower(rig, setting);
        expect(reasons.filter(({ isLive }) => isLive).map(({ load }) => load)).toEqual(answer.live);
        for (const { isLive, missing } of reasons) expect(missing.length > 0).toBe(!isLive);
      }
  });

  it("says so of a boat with no battery, and of a load nothing leads to", () => {
    const bare = { ...twin, batteries: [], wiring: [] };
    expect(of(bare, plain, "horn")).toMatchObject({ isLive: false, missing: ["no wire leads to it"] });
  });
});

describe("what charges", () => {
  const running = { engines: ["port"], shore: false };
  it("is the engine's own bank, the others through the isolator, and nothing runs back through it", () => {
    const on = set(off(twin), { port: "On", starboard: "On", house: "On" });
    expect(listCharging(twin, on, running)).toEqual([
      { battery: "port", by: ["Port engine"] },
      { battery: "starboard", by: ["Port engine, through the isolator"] },
      { battery: "house", by: ["Port engine, through the isolator"] },
    ]);
    expect(live(askLive(twin, on)).live).toContain("engine-port");
  });

  it("follows the selector where there is no isolator; a bow motor's bank is charged from the shore alone", () => {
    const ferrin = rigTemplates["ferrin-20"];
    const by = (position: string) =>
      listCharging(ferrin, set(off(ferrin), { selector: position }), { engines: ["main"], shore: false }).map(
        (each) => each.by.length,
      );
    expect([by("1"), by("Both"), by("2"), by("Off")]).toEqual([
      [1, 0],
      [1, 1],
      [0, 1],
      [0, 0],
    ]);
    const sedge = rigTemplates["sedge-18"];
    const bow = (sources: Parameters<typeof listCharging>[2]) =>
      listCharging(sedge, set(off(sedge), { main: "On" }), sources).find(({ battery }) => battery === "bow-1")!.by;
    expect(bow({ engines: ["main", "kicker"], shore: false })).toEqual([]);
    expect(bow({ engines: [], shore: true })).toHaveLength(1);
  });
});

describe("what drains", () => {
  const left: Drain = {
    setting: set(off(twin), { house: "On", "sw-lights": "Anchor" }),
    buttons: {},
    pumpEveryMin: null,
    airC: 25,
    years: 0,
  };

  it("is what is on and what is always live; what springs back and a dry float pump draw nothing", () => {
    expect(listDrawing(twin, left).map(({ load }) => load)).toEqual(["anchor-light", "stereo-memory"]);
    expect(
      listDrawing(twin, { ...left, pumpEveryMin: 10 }).find(({ load }) => load === "bilge-auto")!.amps,
    ).toBeCloseTo(0.45, 9);
    expect(listDrawing(twin, { ...left, buttons: { stereo: true } })[0]).toEqual({ load: "stereo", amps: 6 });
  });

  it("lasts shorter in the cold and with age", () => {
    const hours = (change: Partial<Drain>) => askEndurance(twin, { ...left, ...change }).hoursToFloor.house!;
    expect(hours({ airC: 0 })).toBeLessThan(hours({}));
    expect(hours({ years: 5 })).toBeLessThan(hours({}));
    expect([derate("flooded", 0, 0), derate("lifepo4", -20, 9), derate("agm", 40, 0)]).toEqual([0.75, 1, 1]);
    expect(derate("agm", 25, 5)).toBeCloseTo(0.65, 9);
  });

  it("says what another position of the selector would save", () => {
    const ferrin = rigTemplates["ferrin-20"];
    const lights = { ...left, setting: set(off(ferrin), { selector: "Both", "sw-lights": "Anchor" }) };
    const by = new Map(compareSelectors(ferrin, lights).map((each) => [each.position, each.hoursToFloor]));
    // On Both they go down together, longer; on 2 the starting battery only bears what is always live.
    expect(by.get("Both")!.start).toBeCloseTo(by.get("Both")!.house!, 9);
    expect(by.get("2")!.start ?? Number.POSITIVE_INFINITY).toBeGreaterThan(by.get("Both")!.start!);
  });
});

describe("the diagram", () => {
  it("draws every wire, battery and load of every template, rows apart and within its paper", () => {
    for (const rig of Object.values(rigTemplates)) {
      const drawing = drawWiring(rig);
      expect(drawing.batteries).toHaveLength(rig.batteries.length);
      expect(drawing.loads).toHaveLength(rig.loads.length);
      const ys = drawing.loads.map(({ y }) => y);
      expect(new Set(ys).size).toBe(ys.length);
      for (const { points } of drawing.wires)
        for (const [x, y] of points) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(drawing.width);
          expect(y).toBeLessThanOrEqual(drawing.height);
          expect(Number.isFinite(y)).toBe(true);
        }
      expect(drawing.knobs).toHaveLength(rig.powerSwitches.length);
    }
  });

  it("draws any graph, also with a loop and a node nobody knows", () => {
    const wiring = [
      { id: "x", kind: "wire" as const, a: "battery:port", b: "odd" },
      { id: "y", kind: "wire" as const, a: "odd", b: "battery:port" },
      { id: "z", kind: "fuse" as const, a: "odd", b: "load:horn" },
    ];
    expect(drawWiring({ ...twin, wiring }).wires).toHaveLength(3);
  });
});
