import { expect, it } from "vitest";
import { errorStatus } from "../../api/index.ts";
import { Refused } from "../app/client.ts";
import { describeError } from "./errorWords.ts";
import { parseHours } from "./parseHours.ts";
import { formatDistance, formatMinutes } from "./words.ts";

it.each(Object.keys(errorStatus))("%s is said in words of its own, with a way out", (code) => {
  const facts = {
    code,
    got: 9,
    before: 14.5,
    on: "2026-06-01",
    admits: ["owner"],
    what: "boat",
    id: "x",
    waitS: 60,
    login: "wenna",
    limit: "1 MB",
    role: "sales",
    today: "2026-06-02",
    neededBy: "Windlass",
    topic: "Winch handle",
    into: "Winch",
    reason: "there is no record in it",
    inService: "2026-05-01",
    date: "2026-06-01",
    startMin: 580,
    minutes: 30,
    by: "Ana",
    perDay: 12.5,
    boats: 3,
    first: "Wending 23",
    why: "boat show",
    store: "Another Yard",
  };
  const said = describeError(new Refused(facts));
  expect(said).not.toContain("undefined");
  expect(said.split(/[.;:]/).length).toBeGreaterThan(1);
  expect(said).not.toContain("!");
});

it("names the field and the reason of bad input", () => {
  const error = new Refused({ code: "invalid-input", issues: [{ path: "hours", message: "must be a number" }] });
  expect(describeError(error)).toContain("hours: must be a number");
});

it.each([
  ["12.4", 12.4],
  ["12,4", 12.4],
  [" 7 ", 7],
  ["", null],
  ["-1", null],
  ["1e3", null],
  ["12.345", null],
])("reads %j h as %s", (text, hours) => {
  expect(parseHours(text)).toBe(hours);
});

it("says spans as people do", () => {
  expect(formatMinutes(58.4)).toBe("58 min");
  expect(formatMinutes(118)).toBe("1 h 58 min");
  expect(formatDistance("2026-03-01", "2026-02-28")).toBe("tomorrow");
  expect(formatDistance("2026-02-20", "2026-02-28")).toBe("8 days ago");
  expect(formatDistance("2027-02-28", "2026-02-28")).toBe("in 12 months");
});
