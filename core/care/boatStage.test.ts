import { expect, it } from "vitest";
import { findStage, soonBy } from "./index.ts";

const today = "2026-06-13";
const sold = {
  inService: "2026-05-01",
  nextDelivery: null,
  isMakingReady: false,
  isBreakInOpen: false,
  due: null,
} as const;

it("a boat is at the stage of what wants doing first", () => {
  expect(findStage({ ...sold, inService: null }, soonBy(today))).toBe("in-stock");
  expect(findStage({ ...sold, inService: null, nextDelivery: "2026-06-20" }, soonBy(today))).toBe("to-hand-over");
  expect(findStage({ ...sold, nextDelivery: "2026-06-20" }, soonBy(today))).toBe("to-hand-over");
  expect(findStage({ ...sold, inService: null, nextDelivery: "2026-06-20", isMakingReady: true }, soonBy(today))).toBe(
    "making-ready",
  );
  expect(findStage({ ...sold, isBreakInOpen: true }, soonBy(today))).toBe("in-break-in");
  expect(findStage(sold, soonBy(today))).toBe("in-use");
});

it("a service within thirty days is due, and one overdue whatever its day", () => {
  const due = (dueDate: string | null, state: "ahead" | "overdue" = "ahead") =>
    findStage({ ...sold, isBreakInOpen: true, due: { dueDate, state } as never }, soonBy(today));
  expect([due("2026-07-13"), due("2026-07-14"), due(null)]).toEqual(["service-due", "in-break-in", "in-break-in"]);
  expect(due("2026-01-01", "overdue")).toBe("service-due");
});
