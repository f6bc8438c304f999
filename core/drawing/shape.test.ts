import { describe, expect, it } from "vitest";
import { boxPath, circlePath, curvePath, linePath } from "./shape.ts";

const numbersOf = (d: string) => [...d.matchAll(/-?\d+(?:\.\d+)?/g)].map(Number);

describe("paths", () => {
  it("turn metres forward and to starboard into paper, bow up", () => {
    expect(linePath([[2, 0.5]])).toBe("M0.5 -2");
    expect(
      linePath(
        [
          [0, 0],
          [1, 0],
          [1, 1],
        ],
        true,
      ),
    ).toBe("M0 0L0 -1L1 -1Z");
  });

  it("pass a curve through every point given", () => {
    const points = [
      [0, 0],
      [1, 0.4],
      [2, 0.1],
      [3, -0.6],
    ] as const;
    const d = curvePath(points);
    for (const [forward, starboard] of points)
      expect(d).toContain(`${starboard} ${-forward || 0}`.replace("-0 ", "0 "));
    expect(d.match(/C/g)).toHaveLength(3);
    expect(curvePath(points, true).match(/C/g)).toHaveLength(4);
    expect(curvePath(points, true).endsWith("Z")).toBe(true);
  });

  it("keep a straight curve straight", () => {
    const xs = numbersOf(
      curvePath([
        [0, 1],
        [1, 1],
        [2, 1],
        [3, 1],
      ]),
    ).filter((_, i) => i % 2 === 0);
    expect(new Set(xs)).toEqual(new Set([1]));
  });

  it("round a box by no more than half its side", () => {
    expect(boxPath(0, 0, 1, 2)).toBe("M0 0L0 -1L2 -1L2 0Z");
    const d = boxPath(0, 0, 1, 2, 9);
    expect(d.match(/A/g)).toHaveLength(4);
    expect(d).toContain("A0.5 0.5");
  });

  it("close a circle of the radius asked for", () => {
    const d = circlePath(1, 2, 0.25);
    expect(d.match(/A0.25 0.25/g)).toHaveLength(2);
    expect(d.endsWith("Z")).toBe(true);
  });

  it("write no number longer than a tenth of a millimetre needs", () => {
    for (const value of numbersOf(
      curvePath([
        [1 / 3, 2 / 3],
        [Math.PI, Math.E],
        [7 / 9, 0.123456],
      ]),
    ))
      expect(String(value).split(".")[1]?.length ?? 0).toBeLessThanOrEqual(3);
  });
});
