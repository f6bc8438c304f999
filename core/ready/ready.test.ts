import { describe, expect, it } from "vitest";
import { makeReady, rigTemplates } from "../../content/index.ts";
import { hasBehind } from "../rig/index.ts";
import { listReadyChecks, planReady, readyCheckSchema } from "./index.ts";

describe.each(Object.entries(rigTemplates))("make-ready of %s", (_, rig) => {
  const checks = listReadyChecks(rig, makeReady);

  it("has checks of one id each, at stations the boat has, as the schema says", () => {
    expect(new Set(checks.map(({ id }) => id)).size).toBe(checks.length);
    for (const check of checks) {
      expect(readyCheckSchema.safeParse(check).error?.issues ?? []).toEqual([]);
      expect(rig.stations.some(({ id }) => id === check.station)).toBe(true);
    }
  });

  it("tries every position that powers something, in panel order, and every switch with nothing behind it once", () => {
    const panel = checks.filter((check) => check.switch !== null);
    const wanted = rig.panel.flatMap((item) => {
      if (item.kind === "lamp" || !hasBehind(item)) return [item.id];
      return item.positions.filter(({ powers }) => powers.length > 0).map(() => item.id);
    });
    expect(panel.map((check) => check.switch)).toEqual(wanted);
  });

  it("goes round the boat once: each check at one stop, no stop without one", () => {
    const visits = planReady(rig, checks);
    expect(visits.flatMap(({ topics }) => topics).sort()).toEqual(checks.map(({ id }) => id).sort());
    expect(visits.every(({ topics }) => topics.length > 0)).toBe(true);
    const stations = new Set(checks.map(({ station }) => station));
    expect(visits).toHaveLength(stations.size);
  });
});

it("says of a position what it should do, and asks for the trailer only where there is one", () => {
  const titles = listReadyChecks(rigTemplates["wending-23"], makeReady).map(({ title }) => title);
  expect(titles).toContain("Nav / anchor at Anchor: Anchor light");
  expect(titles).toContain("Acc 1: nothing behind it, nothing happens");
  const afloat = { ...rigTemplates["wending-23"], trailer: null };
  const ids = listReadyChecks(afloat, makeReady).map(({ id }) => id);
  expect(ids).not.toContain("trailer-lights");
  expect(ids).toContain("water-test");
});
