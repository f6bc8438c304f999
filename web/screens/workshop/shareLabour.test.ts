import { expect, it } from "vitest";
import { shareLabour } from "./shareLabour.ts";

it("shares hours of work as they were planned, and alike where a pack plans none", () => {
  expect(shareLabour([1.5, 0.5], 4)).toEqual([3, 1]);
  expect(shareLabour([0, 0], 3)).toEqual([1.5, 1.5]);
  expect(shareLabour([], 3)).toEqual([]);
});
