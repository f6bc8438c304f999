import { describe, expect, it } from "vitest";
import { breakInPacks, servicePacks } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { listUnreachable } from "../power/index.ts";
import { regions } from "../region/index.ts";
import {
  changePart,
  checkRig,
  confirmUsual,
  createRig,
  families,
  isStandIn,
  listUnread,
  listUsual,
  putUsual,
  type Rig,
  rigSchema,
  setFigure,
  sumTankL,
} from "./index.ts";

const aids = {
  breakInPacks: new Set(breakInPacks.map(({ id }) => id)),
  servicePacks: new Set(servicePacks.map(({ id }) => id)),
  isWithinHull,
  unreachable: listUnreachable,
  idiom: regions.us,
};
const createBoat = (family: Rig["family"], loaM = 6): Rig =>
  createRig({ family, maker: "Yard", model: "One", modelYear: 2026, loaM, beamM: 2.3, hasTrailer: true });
const missingOf = (rig: Rig) =>
  checkRig(rig, aids).flatMap(({ place, item }) => (place !== undefined && item === null ? [place] : []));

describe("what a boat has, put where such boats have it", () => {
  it.each(families.flatMap((family) => [4.2, 6, 9].map((loaM) => [family, loaM] as const)))(
    "of a %s of %s m leaves no place open, stands on the boat, and asks to be looked at",
    (family, loaM) => {
      const bare = createBoat(family, loaM);
      const put = putUsual(bare, missingOf(bare));
      expect(rigSchema.safeParse(put).error?.issues ?? []).toEqual([]);
      const kinds = checkRig(put, aids).map(({ kind }) => kind);
      expect(missingOf(put)).toEqual([]);
      for (const kind of ["part-off-boat", "no-fuel-tank", "tank-without-fill", "batteries-too-few", "same-name-twice"])
        expect(kinds).not.toContain(kind);
      expect(kinds).toContain("usual-not-looked-at");
      expect(listUsual(put)).toHaveLength(put.parts.length);
      expect(checkRig(confirmUsual(put), aids).map(({ kind }) => kind)).not.toContain("usual-not-looked-at");
    },
  );

  it("is looked at where it is moved, told elsewhere or said how to reach; other facts leave it open", () => {
    const bare = createBoat("centre-console");
    const put = putUsual(bare, missingOf(bare));
    const [first] = put.parts;
    const isOpen = (change: Parameters<typeof changePart>[2]) =>
      listUsual(changePart(put, first!.id, change)).some(({ id }) => id === first!.id);
    expect(isOpen({ label: "Drain" })).toBe(true);
    expect(isOpen({ at: { xM: 1, yM: 0 } })).toBe(false);
    expect(isOpen({ reach: "Transom, low" })).toBe(false);
    expect(isOpen({ station: put.stations.at(-1)!.id })).toBe(false);
  });

  it("makes up no figure: tank and battery that come with it are to be read, count for nothing and print as none until then", () => {
    const bare = createBoat("runabout");
    const put = putUsual(bare, missingOf(bare));
    const [tank, battery] = [`tanks.${put.tanks[0]!.id}.litres`, `batteries.${put.batteries[0]!.id}.capacityAh`];
    const openOf = (rig: Rig) => listUnread(rig).flatMap(({ paths }) => paths);
    const kindsOf = (rig: Rig) => checkRig(rig, aids).filter(({ kind }) => kind === "figure-not-read");
    expect(openOf(put)).toEqual(expect.arrayContaining([tank, battery, "weights.dryKg", "trailer.ballMm"]));
    expect(kindsOf(put)).toHaveLength(2);
    expect([sumTankL(put, ["petrol"]), isStandIn(put, tank), isStandIn(put, battery)]).toEqual([0, true, true]);
    // Also one that holds exactly what was put in.
    const read = setFigure(setFigure(put, tank, put.tanks[0]!.litres), battery, 90);
    expect([sumTankL(read, ["petrol"]), isStandIn(read, tank), kindsOf(read)]).toEqual([100, false, []]);
    expect(openOf(read)).not.toContain(tank);
    expect(read.tanks[0]).not.toHaveProperty("usual");
  });

  it("leaves what is there as it is", () => {
    const bare = createBoat("runabout");
    const put = confirmUsual(putUsual(bare, missingOf(bare)));
    expect(putUsual(put, [])).toEqual(put);
  });
});
