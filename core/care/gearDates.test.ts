import { expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { listGearDates } from "./index.ts";

const { gear } = rigTemplates["wending-23"];
const today = "2026-06-13";

it("lists what runs out, the soonest first: what the owner says before what was read at the handover", () => {
  const flares = gear.find(({ label }) => /flare/i.test(label))!;
  const extinguisher = gear.find(({ label }) => /extinguisher/i.test(label))!;
  const read = new Map([
    [flares.id, { dated: "2026-05-01" }],
    [extinguisher.id, { dated: "2027-01-31" }],
  ] as const);
  const list = (own: Record<string, `${number}-${number}-${number}`>) =>
    listGearDates(gear, read, own, today).map(({ id, until, state }) => [id, until, state]);
  expect(list({}).slice(0, 2)).toEqual([
    [flares.id, "2026-05-01", "past"],
    [extinguisher.id, "2027-01-31", "good"],
  ]);
  expect(list({}).at(-1)).toEqual(["registration", null, "unknown"]);
  const own = list({ [flares.id]: "2028-05-31", registration: "2026-08-12" });
  expect(own[0]).toEqual(["registration", "2026-08-12", "soon"]);
  expect(own).toContainEqual([flares.id, "2028-05-31", "good"]);
  expect(list({ registration: "2026-08-13" }).find(([id]) => id === "registration")?.[2]).toBe("good");
  // A horn has no day on it.
  expect(list({}).some(([id]) => /line|fender|key/.test(String(id)))).toBe(false);
});
