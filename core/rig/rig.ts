import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";
import { plainText } from "../text/plainText.ts";
import { typedSchema } from "../units/index.ts";

export { plainText };

const idSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");
const amps = z.number().positive().max(2000);

/** A place on the boat in metres: `xM` forward of the transom (behind it negative), `yM` to starboard of the middle. */
export const placeSchema = z.strictObject({ xM: z.number().min(-5).max(40), yM: z.number().min(-8).max(8) });
export type Place = z.infer<typeof placeSchema>;

export const families = [
  "centre-console",
  "pontoon",
  "bowrider",
  "side-console",
  "tow-sport",
  "cuddy",
  "runabout",
] as const;

export const stationKinds = [
  "coupler",
  "winch",
  "wheels",
  "transom",
  "engines",
  "bilge",
  "cockpit",
  "console",
  "helm",
  "bow",
  "anchor",
  "alongside",
] as const;
export type StationKind = (typeof stationKinds)[number];

/** A spot where people stand to be told something; reached from the ground or from aboard. */
export const stationSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(stationKinds),
  label: plainText(40),
  at: placeSchema,
  level: z.enum(["ground", "aboard"]),
});

export const partKinds = [
  "battery",
  "selector",
  "panel",
  "breakers",
  "through-hull",
  "plug",
  "fill",
  "pump-out",
  "extinguisher",
  "jackets",
  "first-aid",
  "flush-port",
  "hatch",
  "seat",
  "table",
  "anchor",
  "windlass",
  "light-pole",
  "horn",
  "tap",
  "livewell",
  "head",
  "pump",
  "tabs",
  "vhf",
  "plotter",
  "cleat",
  "charger-socket",
  "lanyard",
  "throttle",
  "fuse-block",
  "isolator",
  "charger",
  "wiper",
  "blower",
  "stereo",
  "docking-light",
  "gauges",
  "speed-control",
  "ballast",
  "surf-tabs",
  "tower",
  "bimini",
  "hard-top",
  "tow-point",
  "board-rack",
  "swim-platform",
  "ladder",
  "door",
  "cover",
  "galley",
  "berth",
  "sink",
  "fish-box",
  "rod-holder",
  "outrigger",
  "downrigger",
  "bow-motor",
  "portable-tank",
  "primer-bulb",
  "fuel-filter",
  "steering",
  "travel-support",
  "transducer",
  "capacity-plate",
  "fire-system",
  "detector",
  "enclosure",
  "generator",
  "air-conditioner",
  "fridge",
] as const;
export type PartKind = (typeof partKinds)[number];

export const partSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(partKinds),
  label: plainText(60),
  station: idSchema,
  at: placeSchema,
  reach: plainText(160).optional(),
  /** Where it stood when `reach` was written, once it has been moved since: until somebody says that it still holds. */
  reachAt: placeSchema.optional(),
  /** Put where such boats usually have it; until somebody has looked whether this one does. */
  usual: z.boolean().optional(),
  opens: z.enum(["hinge", "slide", "lift-out", "screw", "latch"]).optional(),
  holds: z.array(plainText(80)).max(30).optional(),
  /** A photo of it, kept by the store under this id. */
  photo: idSchema.optional(),
});

export const switchKinds = [
  "two-position",
  "three-position",
  "momentary",
  "press-and-hold",
  "push-to-cycle",
  "lamp",
] as const;

/** One place on the panel, in physical order. `powers` empty on every position means nothing is behind it. */
export const panelSwitchSchema = z.strictObject({
  id: idSchema,
  label: plainText(40).nullable(),
  kind: z.enum(switchKinds),
  positions: z.array(z.strictObject({ label: plainText(20), powers: z.array(idSchema) })).max(6),
  lamp: z.boolean(),
  note: plainText(200).optional(),
});

export const breakerSchema = z.strictObject({
  id: idSchema,
  label: plainText(40),
  part: idSchema,
  ratingA: amps,
  resets: z.enum(["push-in", "flip", "lever"]),
  feeds: z.array(idSchema).max(40),
});

export const batteryUses = ["start", "house", "bow-motor"] as const;

/** Something that uses power. */
export const loadSchema = z.strictObject({
  id: idSchema,
  label: plainText(60),
  amps,
  /** The amps were measured on this boat; else they are what such a thing usually draws. */
  measured: z.boolean().optional(),
  /** Live with every switch off. */
  always: z.boolean(),
  /** The battery it is fed from; left out: the house battery, or the only one. */
  from: idSchema.optional(),
  /** The kinds of things aboard that it runs. */
  serves: z.array(z.enum(partKinds)).max(6).optional(),
  /** Which of them, where that was said: else every one of those kinds. */
  parts: z.array(idSchema).max(12).optional(),
});

export const powerSchemes = ["single", "one-two-both", "engine-house-parallel", "twin-engine-house-parallel"] as const;

/** A wire, fuse, breaker or switch of the boat's wiring, as the contract `live` takes it. */
export const wiringLinkSchema = z.strictObject({
  id: z.string().min(1).max(120),
  kind: z.enum(["wire", "fuse", "breaker", "switch"]),
  a: z.string().min(1).max(120),
  b: z.string().min(1).max(120),
  switch: idSchema.optional(),
  closedIn: z.array(z.string().min(1).max(40)).max(6).optional(),
});

/** When an hour meter counts: while the engine runs, whenever the key is on, or shown only after the first hour. */
export const meterKinds = ["running", "key-on", "after-first-hour"] as const;
export type MeterKind = (typeof meterKinds)[number];
export const engineKinds = ["outboard", "kicker", "sterndrive", "inboard"] as const;

export const engineSchema = z.strictObject({
  id: idSchema,
  label: plainText(40),
  kind: z.enum(engineKinds),
  fuel: z.enum(["petrol", "diesel"]).optional(),
  /** How it is started: by key or button, or by pulling a cord. */
  start: z.enum(["electric", "pull"]).optional(),
  powerKw: z.number().positive().max(2000).optional(),
  ratedRpm: z.strictObject({ from: z.number().min(500).max(10_000), to: z.number().min(500).max(10_000) }),
  meter: z.enum(meterKinds).optional(),
  /** Where a two-stroke gets its oil: from a tank of its own, or mixed into the fuel. Left out: a four-stroke. */
  twoStrokeOil: z.enum(["injected", "mixed"]).optional(),
  /** Shift and throttle by wire instead of by cable. */
  digitalControls: z.boolean().optional(),
  /** Litres an hour as entered or measured, for a break-in counted in tanks. */
  burnLph: z.number().positive().max(500).optional(),
  breakInPack: idSchema,
  servicePack: idSchema,
});

export const trailerSchema = z.strictObject({
  axles: z.int().min(1).max(3),
  brakes: z.enum(["none", "surge", "electric"]),
  lockOut: z.enum(["none", "pin", "reverse-wire"]),
  ballMm: z.number().positive().optional(),
  pins: z.int().min(4).max(7),
  hitchToTransomM: z.number().positive(),
  grossLimitKg: z.number().positive().optional(),
  tyreKpa: z.number().positive().optional(),
  swingTongue: z.boolean().optional(),
  /** What stands on its plate, and what was measured on it; asked for by the tow and ramp cards. */
  kg: z.number().positive().optional(),
  axleLimitKg: z.number().positive().optional(),
  tyres: z.int().min(2).max(6).optional(),
  tyreLimitKg: z.number().positive().optional(),
  couplerLimitKg: z.number().positive().optional(),
  tongueLimitKg: z.number().positive().optional(),
  tongueKg: z.number().positive().optional(),
  bunkHeightM: z.number().positive().optional(),
  fenderFromTransomM: z.number().positive().optional(),
  fenderHeightM: z.number().positive().optional(),
});

/** A boat as it stands: everything a walk, a card or a drawing needs to know (`ravik.rig/1`). Lengths in metres. */
export const rigSchema = z
  .strictObject({
    format: z.literal("ravik.rig/1"),
    maker: plainText(60),
    model: plainText(60),
    modelYear: z.int().min(1950).max(2100),
    family: z.enum(families),
    loaM: z.number().min(3).max(20),
    beamM: z.number().min(1).max(6),
    /** Of a pontoon: how many tubes carry it. */
    tubes: z.union([z.literal(2), z.literal(3)]).optional(),
    enclosedFuel: z.boolean(),
    /** What the boat weighs and draws, for the tow and ramp cards; from the maker's sheet. */
    weights: z
      .strictObject({
        dryKg: z.number().positive().optional(),
        enginesKg: z.number().min(0).optional(),
        gearKg: z.number().min(0).optional(),
        ballastL: z.number().min(0).optional(),
        sternDraftM: z.number().positive().optional(),
      })
      .optional(),
    /** Figures as somebody typed them, by their path ("trailer.tyreKpa", "tanks.main.litres"); the figure itself is beside. */
    typed: z.record(z.string().max(140), typedSchema).optional(),
    /** Of a boat that others had before: what they changed on it, as far as was found. Absent on a new one. */
    used: z.strictObject({ changes: z.array(plainText(160)).max(20) }).optional(),
    boarding: placeSchema,
    stations: z.array(stationSchema).min(1).max(20),
    parts: z.array(partSchema).max(200),
    batteries: z
      .array(
        z.strictObject({
          id: idSchema,
          label: plainText(40),
          part: idSchema,
          capacityAh: z.number().positive().max(2000),
          chemistry: z.enum(["flooded", "agm", "lifepo4"]),
          use: z.enum(batteryUses).optional(),
          /** Capacity and chemistry are what such boats usually have; nobody has read the label yet. */
          usual: z.boolean().optional(),
        }),
      )
      .max(12),
    powerScheme: z.enum(powerSchemes),
    powerSwitches: z
      .array(
        z.strictObject({
          id: idSchema,
          label: plainText(40),
          part: idSchema,
          positions: z.array(z.strictObject({ label: plainText(20), does: plainText(160) })).min(2),
        }),
      )
      .max(8),
    loads: z.array(loadSchema).max(80),
    /** The wiring where it differs from what the scheme gives (`createWiring`). */
    wiring: z.array(wiringLinkSchema).max(400).optional(),
    /** Who looked on this very boat whether it is wired so, and when; absent while it is only assumed. */
    wiringChecked: z.strictObject({ by: plainText(80), on: localDateSchema }).optional(),
    panel: z.array(panelSwitchSchema).max(40),
    breakers: z.array(breakerSchema).max(60),
    engines: z.array(engineSchema).min(1).max(5),
    tanks: z
      .array(
        z.strictObject({
          id: idSchema,
          kind: z.enum(["petrol", "diesel", "fresh-water", "waste"]),
          label: plainText(40),
          litres: z.number().positive(),
          fill: idSchema.optional(),
          /** It holds what such boats usually hold; nobody has read it yet. */
          usual: z.boolean().optional(),
        }),
      )
      .max(10),
    throughHulls: z
      .array(
        z.strictObject({
          id: idSchema,
          label: plainText(60),
          part: idSchema,
          serves: plainText(80),
          /** What has its water through it, where that was said. */
          parts: z.array(idSchema).max(12).optional(),
        }),
      )
      .max(20),
    trailer: trailerSchema.nullable(),
    gear: z
      .array(
        z.strictObject({
          id: idSchema,
          label: plainText(60),
          group: z.enum(["keys", "papers", "safety", "water", "deck", "trailer"]),
          count: z.int().min(1).max(99),
          must: z.boolean(),
        }),
      )
      .max(80),
  })
  .superRefine((rig, check) => {
    const say = (path: (string | number)[], message: string) => check.addIssue({ code: "custom", path, message });
    const once = (name: string, list: readonly { id: string }[]) => {
      const seen = new Set<string>();
      list.forEach(({ id }, i) => {
        if (seen.has(id)) say([name, i, "id"], `"${id}" is used twice`);
        seen.add(id);
      });
      return seen;
    };
    const stations = once("stations", rig.stations);
    const parts = once("parts", rig.parts);
    const loads = once("loads", rig.loads);
    once("panel", rig.panel);
    once("breakers", rig.breakers);
    once("engines", rig.engines);
    once("gear", rig.gear);
    rig.parts.forEach((part, i) => {
      if (!stations.has(part.station)) say(["parts", i, "station"], `no station "${part.station}"`);
    });
    const atPart = (name: "batteries" | "powerSwitches" | "breakers" | "throughHulls") =>
      rig[name].forEach(({ part }, i) => {
        if (!parts.has(part)) say([name, i, "part"], `no part "${part}"`);
      });
    atPart("batteries");
    atPart("powerSwitches");
    atPart("breakers");
    atPart("throughHulls");
    for (const name of ["loads", "throughHulls"] as const)
      rig[name].forEach(({ parts: runs = [] }, i) => {
        for (const id of runs) if (!parts.has(id)) say([name, i, "parts"], `no part "${id}"`);
      });
    rig.panel.forEach((item, i) => {
      item.positions.forEach((position, j) => {
        position.powers.forEach((id, k) => {
          if (!loads.has(id)) say(["panel", i, "positions", j, "powers", k], `no load "${id}"`);
        });
      });
    });
    rig.breakers.forEach((breaker, i) => {
      breaker.feeds.forEach((id, j) => {
        if (!loads.has(id)) say(["breakers", i, "feeds", j], `no load "${id}"`);
      });
    });
    rig.tanks.forEach((tank, i) => {
      if (tank.fill !== undefined && !parts.has(tank.fill)) say(["tanks", i, "fill"], `no part "${tank.fill}"`);
    });
  });

export type Rig = z.infer<typeof rigSchema>;
export type Engine = z.infer<typeof engineSchema>;
export type Station = z.infer<typeof stationSchema>;
export type Part = z.infer<typeof partSchema>;
export type PanelSwitch = z.infer<typeof panelSwitchSchema>;
