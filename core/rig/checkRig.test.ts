import { describe, expect, it } from "vitest";
import { breakInPacks, rigTemplates, servicePacks } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { listUnreachable } from "../power/index.ts";
import { createRandom } from "../random.ts";
import { regions } from "../region/index.ts";
import {
  addItem,
  changeItem,
  changePart,
  checkRig,
  createPart,
  createRig,
  type FindingKind,
  families,
  findingKinds,
  type Part,
  type PartKind,
  putUsual,
  type Rig,
  removeItem,
  rigLists,
  rigSchema,
} from "./index.ts";

const aids = {
  breakInPacks: new Set(breakInPacks.map(({ id }) => id)),
  servicePacks: new Set(servicePacks.map(({ id }) => id)),
  isWithinHull,
  unreachable: listUnreachable,
  idiom: regions.us,
};
const kindsOf = (rig: Rig) => checkRig(rig, aids).map(({ kind }) => kind);
const big = rigTemplates["wending-23"];
const cuddy = rigTemplates["haldern-25"];
const without = (rig: Rig, kind: PartKind): Rig => ({ ...rig, parts: rig.parts.filter((part) => part.kind !== kind) });
const withPart = (rig: Rig, part: Partial<Part> & { kind: PartKind }): Rig =>
  addItem(rig, "parts", { ...createPart(rig, part.kind, { xM: 2, yM: 0 }), ...part });
const firstSwitch = big.panel.find(({ kind }) => kind === "two-position")!;
const threeWay = big.panel.find(({ kind }) => kind === "three-position")!;
const { weights: _, ...weightless } = big;

/** One way to break a good rig for each kind of finding. */
const broken: Record<FindingKind, Rig> = {
  "usual-not-looked-at": putUsual(without(big, "horn"), ["horn"]),
  "names-what-is-gone": without(big, "livewell"),
  "reach-of-old-place": changePart(big, "extinguisher", { at: { xM: 5, yM: 0 } }),
  "trailer-overloaded": { ...big, trailer: { ...big.trailer!, grossLimitKg: 900 } },
  "brakes-need-another-plug": { ...big, trailer: { ...big.trailer!, brakes: "electric", lockOut: "none", pins: 4 } },
  "lock-out-without-surge-brakes": { ...big, trailer: { ...big.trailer!, brakes: "electric", lockOut: "pin" } },
  "switch-without-breaker": { ...big, breakers: big.breakers.filter(({ feeds }) => !feeds.includes("horn")) },
  "breaker-feeds-nothing": changeItem(big, "breakers", big.breakers[0]!.id, { feeds: [] }),
  "breaker-too-small": changeItem(big, "breakers", big.breakers[0]!.id, { ratingA: 0.1 }),
  "option-without-supply": changeItem(big, "loads", "horn", { serves: [] }),
  "option-without-switch": {
    ...big,
    panel: big.panel.filter(({ positions }) => !positions.some(({ powers }) => powers.includes("horn"))),
  },
  "switch-without-option": without(big, "horn"),
  "load-without-feed": addItem(big, "loads", { id: "spare", label: "Spare", amps: 1, always: false }),
  "batteries-too-few": removeItem(big, "batteries", "house"),
  "battery-not-described": withPart(big, { kind: "battery" }),
  "power-switch-missing": { ...big, powerSwitches: [] },
  "parallel-missing": { ...big, powerSwitches: big.powerSwitches.slice(0, 2) },
  "no-plug": without(big, "plug"),
  "no-extinguisher": without(big, "extinguisher"),
  "no-selector": without(big, "selector"),
  "no-jackets": without(big, "jackets"),
  "no-horn": without(big, "horn"),
  "no-lanyard": without(big, "lanyard"),
  "no-blower": without(cuddy, "blower"),
  "no-helm": {
    ...big,
    stations: big.stations.map((each) => (each.kind === "helm" ? { ...each, kind: "console" } : each)),
  },
  "no-flush": without(big, "flush-port"),
  "no-capacity-plate": without(rigTemplates["pipit-15"], "capacity-plate"),
  "no-panel-place": without(big, "panel"),
  "no-breaker-place": without(without(big, "breakers"), "fuse-block"),
  "raw-water-without-valve": { ...without(big, "through-hull"), throughHulls: [] },
  "through-hull-not-named": withPart(big, { kind: "through-hull" }),
  "waste-without-tank": { ...cuddy, tanks: cuddy.tanks.filter(({ kind }) => kind !== "waste"), throughHulls: [] },
  "unlabelled-switch": {
    ...big,
    panel: [...big.panel, { id: "x", label: null, kind: "momentary", positions: [], lamp: false }],
  },
  "positions-wrong": changeItem(big, "panel", firstSwitch.id, { positions: firstSwitch.positions.slice(0, 1) }),
  "engine-without-care-pack": changeItem(big, "engines", big.engines[0]!.id, { servicePack: "none" }),
  "figure-not-read": changeItem(big, "tanks", big.tanks[0]!.id, { usual: true }),
  "rated-band-upside-down": changeItem(big, "engines", big.engines[0]!.id, { ratedRpm: { from: 6000, to: 5000 } }),
  "no-fuel-tank": { ...big, tanks: [] },
  "tank-without-fill": { ...big, tanks: big.tanks.map(({ fill: _fill, ...tank }) => tank) },
  "surge-brakes-cannot-reverse": { ...big, trailer: { ...big.trailer!, brakes: "surge", lockOut: "none" } },
  "tow-numbers-missing": { ...big, trailer: { ...big.trailer!, tongueKg: undefined } as Rig["trailer"] },
  "ramp-numbers-missing": { ...big, trailer: { ...big.trailer!, bunkHeightM: undefined } as Rig["trailer"] },
  "weights-missing": { ...weightless, weights: { dryKg: 900 } } as Rig,
  "part-off-boat": withPart(big, { kind: "seat", at: { xM: 3, yM: 4 } }),
  "part-far-from-place": withPart(big, {
    kind: "seat",
    at: { xM: 0.5, yM: 0 },
    station: big.stations.find(({ kind }) => kind === "anchor")!.id,
  }),
  "same-name-twice": withPart(big, { kind: "horn", label: big.parts[0]!.label }),
  "keys-not-counted": { ...big, gear: big.gear.filter(({ group }) => group !== "keys") },
  "bow-motor-without-bank": withPart(big, { kind: "bow-motor" }),
  "charger-without-socket": withPart(without(big, "charger-socket"), { kind: "charger" }),
  "wiring-reaches-not": { ...big, wiring: [] },
};

describe("checkRig", () => {
  it.each(Object.entries(rigTemplates))("leaves nothing to do on the template %s", (_name, rig) => {
    expect(checkRig(rig, aids)).toEqual([]);
  });

  it.each(findingKinds)("finds %s", (kind) => {
    const finding = checkRig(broken[kind], aids).find((each) => each.kind === kind);
    expect(finding, `got ${kindsOf(broken[kind])}`).toBeDefined();
    expect(finding!.text.length).toBeGreaterThan(15);
    expect(finding!.text).not.toMatch(/undefined|null|!/);
  });

  it("asks whether the way to a moved thing still holds, until it is written anew or said to hold", () => {
    const place = { at: { xM: 5, yM: 0 } };
    const moved = changePart(big, "extinguisher", place);
    const asks = (rig: Rig) => kindsOf(rig).includes("reach-of-old-place");
    expect(asks(moved)).toBe(true);
    expect(asks(changePart(moved, "extinguisher", { reach: "Inside the bow locker" }))).toBe(false);
    expect(asks(changeItem(moved, "parts", "extinguisher", { reachAt: undefined }))).toBe(false);
    const { at } = big.parts.find(({ id }) => id === "extinguisher")!;
    expect(asks(changePart(moved, "extinguisher", { at }))).toBe(false);
    expect(asks(changePart(big, "extinguisher", { at: { ...at, xM: at.xM + 0.2 } }))).toBe(false);
  });

  it("asks for what was for a thing that is gone: the tie bar of a kicker, a valve that a well and a washdown share", () => {
    const sedge = rigTemplates["sedge-18"];
    const kicker = sedge.engines.find(({ kind }) => kind === "kicker")!;
    const left = (rig: Rig) => checkRig(rig, aids).filter(({ kind }) => kind === "names-what-is-gone");
    expect(left(removeItem(sedge, "engines", kicker.id)).map(({ section, item }) => [section, item])).toEqual([
      ["gear", "tie-bar"],
    ]);
    const washdown = /wash-?down/i;
    const dry = {
      ...sedge,
      parts: sedge.parts.filter(({ label }) => !washdown.test(label)),
      loads: sedge.loads.filter(({ label }) => !washdown.test(label)),
    };
    expect(left(dry).map(({ text }) => text)).toEqual([
      "“Livewell and washdown share it” is on the sheet, and this boat has no washdown. Change it, or put the washdown on",
    ]);
  });

  it("has a middle of a three-position switch off", () => {
    const loud = threeWay.positions.map((position) => ({ ...position, powers: ["horn"] }));
    const found = checkRig(changeItem(big, "panel", threeWay.id, { positions: loud }), aids);
    expect(found.map(({ text }) => text).join()).toContain("the middle of a three-position switch is off");
  });

  it("names only things that are there, and mends where it says", () => {
    for (const [kind, rig] of Object.entries(broken)) {
      const known = new Set(rigLists.flatMap((list) => rig[list].map(({ id }) => id)));
      for (const { item } of checkRig(rig, aids)) if (item !== null) expect(known, kind).toContain(item);
    }
  });

  it.each(families)("asks little of a new %s, and less with each thing placed", (family) => {
    let rig = createRig({ family, maker: "M", model: "N", modelYear: 2026, loaM: 6, beamM: 2.4, hasTrailer: true });
    expect(rigSchema.safeParse(rig).error).toBeUndefined();
    let left = checkRig(rig, aids).length;
    expect(left).toBeLessThan(18);
    for (;;) {
      const next = checkRig(rig, aids).find(({ place, item }) => place !== undefined && item === null);
      if (next === undefined) break;
      rig = addItem(rig, "parts", createPart(rig, next.place!, { xM: rig.loaM * 0.4, yM: 0.2 }));
      const now = checkRig(rig, aids).filter(({ kind }) => kind === next.kind).length;
      expect(now, next.kind).toBe(0);
      left--;
    }
    expect(left).toBeLessThan(12);
  });

  it("never fails, whatever is taken out of a rig, and what is taken out leaves a rig", () => {
    const random = createRandom(404);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    for (let seed = 0; seed < 40; seed++) {
      let rig: Rig = pick(Object.values(rigTemplates));
      for (let i = 0; i < 12; i++) {
        const list = pick(rigLists);
        const item = pick(rig[list] as readonly { id: string }[]);
        if (item !== undefined) rig = removeItem(rig, list, item.id);
        expect(rigSchema.safeParse(rig).error, `seed ${seed}: ${list} ${item?.id}`).toBeUndefined();
      }
      for (const { section, text } of checkRig(rig, aids)) expect(`${section}${text}`.length).toBeGreaterThan(10);
    }
  });
});
