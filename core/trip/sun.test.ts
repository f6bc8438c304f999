import { Body, Observer, SearchRiseSet } from "astronomy-engine";
import { describe, expect, it } from "vitest";
import type { LocalDate } from "../dates/index.ts";
import { sunOn } from "./index.ts";

const places = [
  { name: "a northern lake", lat: 45.2, lon: -93.4 },
  { name: "the equator", lat: 0.1, lon: 6.6 },
  { name: "a southern bay", lat: -33.9, lon: 151.2 },
  { name: "a far northern fjord", lat: 64.1, lon: -21.9 },
  { name: "a warm coast", lat: 26.1, lon: -80.1 },
  { name: "a southern cape", lat: -54.8, lon: -68.3 },
];
const dates: LocalDate[] = ["2026-01-15", "2026-03-20", "2026-05-14", "2026-06-21", "2026-09-23", "2026-11-28"];

describe("sunOn", () => {
  it.each(places)("agrees within two minutes with an independent package at $name", ({ lat, lon }) => {
    for (const date of dates) {
      const ours = sunOn(date, { lat, lon });
      // Asked from the place's own midnight on.
      const midnight = new Date(Date.parse(`${date}T00:00:00Z`) - (lon / 360) * 86_400_000);
      const ask = (direction: number) =>
        SearchRiseSet(Body.Sun, new Observer(lat, lon, 0), direction, midnight, 1)!.date;
      expect(ours.kind).toBe("day");
      if (ours.kind !== "day") continue;
      expect(Math.abs(ours.riseMs - ask(1).getTime())).toBeLessThan(120_000);
      expect(Math.abs(ours.setMs - ask(-1).getTime())).toBeLessThan(120_000);
    }
  });

  it("says so where the sun does not set, or does not rise", () => {
    expect(sunOn("2026-06-21", { lat: 70, lon: 20 }).kind).toBe("always-up");
    expect(sunOn("2026-12-21", { lat: 70, lon: 20 }).kind).toBe("never-up");
    expect(sunOn("2026-06-21", { lat: -70, lon: 20 }).kind).toBe("never-up");
    expect(sunOn("2026-12-21", { lat: -90, lon: 0 }).kind).toBe("always-up");
  });

  it("keeps to the place's own day at either side of the date line", () => {
    for (const lon of [-179.9, 179.9]) {
      const day = sunOn("2026-03-20", { lat: 10, lon });
      if (day.kind !== "day") throw new Error("a day was expected");
      const noonMs = Date.parse("2026-03-20T12:00:00Z") - (lon / 360) * 86_400_000;
      expect(Math.abs((day.riseMs + day.setMs) / 2 - noonMs)).toBeLessThan(20 * 60_000);
    }
  });
});
