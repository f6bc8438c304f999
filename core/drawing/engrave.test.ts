import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { families, type Rig } from "../rig/index.ts";
import { engrave } from "./engrave.ts";
import { halfBeamM } from "./hull.ts";
import { drawDeck, drawFamily } from "./index.ts";
import { boxPath, type ShapeRole } from "./shape.ts";

const rigs: readonly Rig[] = Object.values(rigTemplates);
const pointsOf = (d: string) =>
  [...d.matchAll(/[ML]([^MLCAZ]+)/g)].map(([, pair]) => pair!.trim().split(/[ ,]+/).map(Number) as [number, number]);

const fine = new Set(["grain", "shade"]);

describe("the engraver's hand", () => {
  it.each(rigs.map((rig) => [rig.model, rig] as const))(
    "adds to the plan of %s and changes none of its shapes",
    (_, rig) => {
      const plain = drawFamily(rig, rig.tubes ?? 2);
      const drawn = drawDeck(rig, { trailer: rig.trailer !== null }).shapes;
      const kept = drawn.filter((shape) => plain.some(({ role, d }) => role === shape.role && d === shape.d));
      expect(kept.length).toBeGreaterThanOrEqual(plain.length);
      const strokes = drawn.filter(({ role }) => role === "grain").flatMap(({ d }) => d.match(/M/g) ?? []);
      expect(strokes.length).toBeGreaterThan(20);
      // Many strokes, few shapes: a page draws them quickly.
      expect(drawn.length).toBeLessThan(250);
    },
  );

  it.each(families)("keeps joints and shade of a %s inside its hull", (family) => {
    const hull = { family, loaM: 6.4, beamM: 2.4 };
    const rig = { ...rigTemplates["wending-23"], ...hull, trailer: null };
    for (const { d } of drawDeck(rig, { trailer: false }).shapes.filter(({ role }) => fine.has(role)))
      for (const [x, y] of pointsOf(d)) expect(Math.abs(x), d).toBeLessThanOrEqual(halfBeamM(hull, -y) + 0.001);
  });

  it("throws the shade of a seat aft and to starboard, and of nothing that lies flat", () => {
    const hull = { family: "runabout", loaM: 6, beamM: 2.4 } as const;
    const seat = { role: "console", d: boxPath(2, -0.3, 2.6, 0.3, 0.05) } as const;
    const strokesOf = (role: ShapeRole) =>
      engrave(hull, [{ ...seat, role }])
        .filter((shape) => shape.role === "shade")
        .flatMap(({ d }) => d.split(/(?=M)/))
        .map(pointsOf);
    const strokes = strokesOf("console");
    expect(strokes.length).toBeGreaterThan(20);
    // On paper: to the right, and down.
    for (const [[x, y], [toX, toY]] of strokes as [[number, number], [number, number]][])
      expect([toX > x, toY > y, x >= 0.24 || -y <= 2.06]).toEqual([true, true, true]);
    expect(strokesOf("glass")).toEqual([]);
  });

  it("draws water round a boat that lies afloat, and none round one on its trailer", () => {
    const rig = rigTemplates["wending-23"];
    const count = (trailer: boolean) => drawDeck(rig, { trailer }).shapes.filter(({ role }) => role === "water").length;
    expect([count(true), count(false)]).toEqual([0, 3]);
  });
});
