import { describe, expect, it } from "vitest";
import { dayOf, type Instant, instantSchema, type LocalDate, minutesOfDay, msAt, toInstant } from "./index.ts";

describe("an instant", () => {
  it.each<[Instant, string, LocalDate, number]>([
    ["2026-11-01T03:30:00.000Z", "America/Chicago", "2026-10-31", 22 * 60 + 30],
    ["2026-06-13T23:30:00.000Z", "Europe/Lisbon", "2026-06-14", 30],
    ["2026-12-31T10:30:00.000Z", "Pacific/Kiritimati", "2027-01-01", 30],
    // An hour that comes twice, and one that is left out.
    ["2026-11-01T06:30:00.000Z", "America/Chicago", "2026-11-01", 90],
    ["2026-11-01T07:30:00.000Z", "America/Chicago", "2026-11-01", 90],
    ["2026-03-08T08:00:00.000Z", "America/Chicago", "2026-03-08", 180],
  ])("%s is in %s on %s, %i minutes after midnight", (at, zone, day, minutes) => {
    expect(dayOf(at, zone)).toBe(day);
    expect(dayOf(Date.parse(at), zone)).toBe(day);
    expect(minutesOfDay(at, zone)).toBe(minutes);
  });

  it("is found again from its day and minutes, on both sides of a clock change", () => {
    const at = (date: LocalDate, zone: string) => toInstant(msAt(date, 600, zone));
    expect(at("2026-03-28", "Europe/Lisbon")).toBe("2026-03-28T10:00:00.000Z");
    expect(at("2026-03-29", "Europe/Lisbon")).toBe("2026-03-29T09:00:00.000Z");
    expect(at("2026-10-31", "America/Chicago")).toBe("2026-10-31T15:00:00.000Z");
    expect(at("2026-11-01", "America/Chicago")).toBe("2026-11-01T16:00:00.000Z");
  });

  it.each(["2026-06-14", "2026-06-14T10:00", "2026-06-14T10:00:00+02:00", "2026-02-30T10:00:00Z"])(
    "refuses %s",
    (text) => {
      expect(instantSchema.safeParse(text).success).toBe(false);
    },
  );

  it("is no day: what is cut out of it does not compile", () => {
    const at: Instant = "2026-06-14T01:30:00.000Z";
    // @ts-expect-error Any text is no day.
    const cut: LocalDate = at.slice(0, 10);
    // @ts-expect-error An instant is no day.
    const whole: LocalDate = at;
    expect([cut, whole]).toEqual(["2026-06-14", at]);
    expect(dayOf(at, "America/Chicago")).toBe("2026-06-13");
  });
});
