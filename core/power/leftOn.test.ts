import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { findOffSwitch, listLeftOn, underWay } from "./index.ts";

describe("what drains when it alone is forgotten", () => {
  it.each(Object.entries(rigTemplates))(
    "on %s lasts as long as its bank gives its amps, the quickest first",
    (_, rig) => {
      const left = listLeftOn(rig);
      const hours = left.map((each) => each.hours);
      expect(hours).toEqual([...hours].sort((a, b) => a - b));
      for (const { load } of left) {
        const { always, label } = rig.loads.find(({ id }) => id === load)!;
        expect(always, label).toBe(false);
        expect(label).not.toMatch(/windlass|tab|horn|harness|feed/i);
      }
    },
  );

  it("is the capacity of its battery down to the floor over all that draws, by hand", () => {
    const rig = rigTemplates["wending-23"];
    const stereo = listLeftOn(rig).find(({ label }) => /stereo/i.test(label))!;
    const load = rig.loads.find(({ id }) => id === stereo.load)!;
    const house = rig.batteries.find(({ use }) => use === "house")!;
    // Alone on a bank of that size, what stays live beside it makes it shorter, and never by much.
    const cold = 0.95;
    const alone = (house.capacityAh * cold * 0.5) / load.amps;
    expect(stereo.hours).toBeLessThanOrEqual(alone + 1e-9);
    expect(stereo.hours).toBeGreaterThan(alone * 0.6);
  });

  it("is turned off where the panel has its switch", () => {
    const rig = rigTemplates["wending-23"];
    const light = listLeftOn(rig).find(({ label }) => /anchor/i.test(label))!;
    expect(light.off).toMatchObject({ label: expect.any(String) });
    expect(findOffSwitch(rig, "nothing")).toBeNull();
    const off = underWay(rig).positions[light.off!.id];
    expect(off === undefined || off === light.off!.position).toBe(true);
  });
});
