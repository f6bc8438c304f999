import { describe, expect, it } from "vitest";
import { boatCarePack, servicePacks } from "../../../content/index.ts";
import type { ServiceItem } from "../../../core/service/index.ts";
import { formatEffort, formatWhenDue } from "./formatItem.ts";

const item = (change: Partial<ServiceItem>): ServiceItem => ({ id: "a", title: "A", work: ["w"], ...change });

describe("when a service item falls due", () => {
  it.each([
    [{ everyH: 100 }, "Every 100 h."],
    [{ everyMonths: 12 }, "Every 12 months."],
    [{ everyH: 100, everyMonths: 12 }, "Every 100 h or 12 months, whichever comes first."],
    [{ firstH: 20 }, "Once, at 20 h."],
    [{ firstH: 20, firstMonths: 12 }, "Once, at 20 h or 12 months, whichever comes first."],
    [{ firstH: 500, everyH: 200 }, "First at 500 h, then every 200 h."],
    [
      { firstH: 100, everyH: 100, firstMonths: 12, everyMonths: 12 },
      "Every 100 h or 12 months, whichever comes first.",
    ],
    [{ firstH: 20, everyMonths: 12 }, "First at 20 h, then every 12 months, whichever comes first."],
    [{ season: { fromMonth: 11, toMonth: 2 } }, "Once a year, November to February, whatever the hours."],
    [{}, "Never falls due yet."],
  ] as [Partial<ServiceItem>, string][])("%j: %s", (change, says) => {
    expect(formatWhenDue(item(change))).toBe(says);
  });

  it("is said of everything that ships", () => {
    for (const { items } of [...servicePacks, boatCarePack])
      for (const each of items) expect(formatWhenDue(each)).toMatch(/^(Every|Once,?|First) .*\.$/);
  });
});

it("what an item takes is its labour, its price and how early it may be done, as far as they are known", () => {
  expect(formatEffort(item({ labourH: 1.5, priceCents: 31_240, earlyDays: 14 }))).toBe(
    "1.5 h of work, €312.40, up to 14 days early",
  );
  expect(formatEffort(item({ labourH: 0 }))).toBe("0 h of work");
  expect(formatEffort(item({}))).toBe("");
});
