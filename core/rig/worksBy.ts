import { addItem, createItemId } from "./editRig.ts";
import { wordsFor } from "./leftBehind.ts";
import type { PanelSwitch, Part, PartKind, Rig } from "./rig.ts";
import { putOneUsual } from "./usualPlaces.ts";

/** What has to be on, closed or open so that a thing aboard works. */
export interface WorksBy {
  /** What uses power for it: the thing itself, or its pump. */
  readonly loads: readonly Rig["loads"][number][];
  /** Where it is switched; empty where it is always live or has a switch of its own. */
  readonly switches: readonly PanelSwitch[];
  readonly breakers: readonly Rig["breakers"][number][];
  /** Where its water comes in. */
  readonly valves: readonly Rig["throughHulls"][number][];
}

/**
 * What things that use power work by. pump: what uses power for it is called a pump. water: it comes in through the hull. panel:
 * switched there, rather than on the thing itself. asked: the sheet asks what feeds it.
 */
type Trait = "pump" | "water" | "panel" | "asked";
const powered: Partial<Record<PartKind, readonly Trait[]>> = {
  livewell: ["pump", "water", "panel", "asked"],
  ballast: ["pump", "water", "panel", "asked"],
  "fish-box": ["pump", "panel"],
  head: ["pump", "water", "panel"],
  sink: ["pump", "panel"],
  tap: ["pump", "panel"],
  pump: ["panel"],
  horn: ["panel", "asked"],
  blower: ["panel", "asked"],
  "docking-light": ["panel", "asked"],
  wiper: ["panel", "asked"],
  windlass: ["asked"],
  "surf-tabs": ["asked"],
  "bow-motor": ["asked"],
  tabs: ["asked"],
  stereo: ["asked"],
  plotter: ["asked"],
  vhf: [],
  fridge: [],
  "air-conditioner": ["water"],
  downrigger: [],
  gauges: [],
};
const isOf =
  (trait: Trait) =>
  ({ kind }: Pick<Part, "kind">): boolean =>
    powered[kind]?.includes(trait) ?? false;

export const isPowered = ({ kind }: Pick<Part, "kind">): boolean => powered[kind] !== undefined;
export const isPumped = isOf("pump");
export const isSwitchedOnPanel = isOf("panel");
/** A generator draws water though it feeds others. */
export const isWatered = (part: Pick<Part, "kind">): boolean => part.kind === "generator" || isOf("water")(part);
/** Kinds of which the sheet asks what feeds them. */
export const askedSupply = (Object.keys(powered) as PartKind[]).filter((kind) => isOf("asked")({ kind }));

/** What of pump, switch and breaker is not described for a thing; a switch only where it is switched on the panel. */
export function listMissingWorks(rig: Rig, part: Part): ("pump" | "power" | "switch" | "breaker")[] {
  const { loads, switches, breakers } = findWorks(rig, part);
  const isAlways = loads.length > 0 && loads.every(({ always }) => always);
  return [
    ...(loads.length > 0 ? [] : [isPumped(part) ? ("pump" as const) : ("power" as const)]),
    ...(switches.length > 0 || isAlways || !isSwitchedOnPanel(part) ? [] : ["switch" as const]),
    ...(breakers.length > 0 ? [] : ["breaker" as const]),
  ];
}

/**
 * What a thing works by: what names it, else what serves its kind without naming one; a valve also by what is written of it.
 */
export function findWorks(rig: Rig, part: Part): WorksBy {
  const loads = findFor(rig.loads, part.id, ({ serves = [] }) => serves.includes(part.kind));
  const ids = new Set(loads.map(({ id }) => id));
  const words = wordsFor(part.kind);
  return {
    loads,
    switches: rig.panel.filter(({ positions }) => positions.some(({ powers }) => powers.some((id) => ids.has(id)))),
    breakers: rig.breakers.filter(({ feeds }) => feeds.some((id) => ids.has(id))),
    valves: isWatered(part) ? findFor(rig.throughHulls, part.id, ({ serves }) => words?.test(serves) === true) : [],
  };
}

function findFor<T extends { parts?: string[] | undefined }>(
  items: readonly T[],
  part: string,
  fits: (item: T) => boolean,
): T[] {
  const own = items.filter(({ parts }) => parts?.includes(part));
  return own.length > 0 ? own : items.filter((item) => item.parts === undefined && fits(item));
}

/** The rig with what uses power for a thing: one of its loads, or a new one of this name. */
export function feedBy(rig: Rig, part: Part, load: string | { readonly label: string }): Rig {
  const id = typeof load === "string" ? load : createItemId(rig, "loads", load.label);
  const grown =
    typeof load === "string" ? rig : addItem(rig, "loads", { id, label: load.label, amps: usualA, always: false });
  const loads = nameIn(grown.loads, id, part.id).map((each) =>
    each.id === id ? { ...each, serves: [...new Set([...(each.serves ?? []), part.kind])] } : each,
  );
  return { ...grown, loads };
}

/** What a thing draws of which nobody has read the label yet. */
const usualA = 3;

/** The rig with what uses power for a thing switched in one place of the panel: one that is there, or a new one. */
export function switchBy(rig: Rig, loads: readonly string[], place: string | { readonly label: string }): Rig {
  const id = typeof place === "string" ? place : createItemId(rig, "panel", place.label);
  const grown: Rig =
    typeof place === "string"
      ? rig
      : addItem(has(rig, "panel") ? rig : putOneUsual(rig, "panel"), "panel", {
          ...{ id, label: place.label, kind: "two-position", lamp: false },
          positions: ["On", "Off"].map((label) => ({ label, powers: [] })),
        });
  const panel = grown.panel.map((item) => {
    const first = Math.max(
      0,
      item.positions.findIndex(({ powers }) => powers.length > 0),
    );
    return {
      ...item,
      positions: item.positions.map((position, i) => ({
        ...position,
        powers: put(position.powers, loads, item.id === id && i === first),
      })),
    };
  });
  return { ...grown, panel };
}

/** The rig with what uses power for a thing behind one breaker: one that is there, or a new one where the others are. */
export function guardBy(rig: Rig, loads: readonly string[], breaker: string | { readonly label: string }): Rig {
  if (typeof breaker === "string")
    return {
      ...rig,
      breakers: rig.breakers.map((each) => ({ ...each, feeds: put(each.feeds, loads, each.id === breaker) })),
    };
  const place =
    rig.parts.find(({ kind }) => kind === "breakers") ?? rig.parts.find(({ kind }) => kind === "fuse-block");
  if (place === undefined) return guardBy(putOneUsual(rig, "breakers"), loads, breaker);
  const id = createItemId(rig, "breakers", breaker.label);
  const fresh = {
    id,
    label: breaker.label,
    part: place.id,
    ratingA: usualRatingA,
    resets: "push-in",
    feeds: [],
  } as const;
  return guardBy(addItem(rig, "breakers", { ...fresh, feeds: [] }), loads, id);
}

const usualRatingA = 10;
const has = (rig: Rig, kind: PartKind) => rig.parts.some((part) => part.kind === kind);

/** The rig with a valve named as the one through which a thing has its water; `null`: through none. */
export const drawBy = (rig: Rig, part: Part, valve: string | null): Rig => ({
  ...rig,
  throughHulls: nameIn(rig.throughHulls, valve, part.id),
});

/** The rig with pump, switch and breaker for a thing, each as far as it is missing (`listMissingWorks`), called as the thing is. */
export function completeWorks(rig: Rig, part: Part): Rig {
  const { label } = part;
  const missing = listMissingWorks(rig, part);
  const isFed = findWorks(rig, part).loads.length > 0;
  const fed = isFed ? rig : feedBy(rig, part, { label: isPumped(part) ? `${label} pump` : label });
  const loads = findWorks(fed, part).loads.map(({ id }) => id);
  const switched = missing.includes("switch") ? switchBy(fed, loads, { label }) : fed;
  return missing.includes("breaker") ? guardBy(switched, loads, { label }) : switched;
}

/** Each item with the part among those it names, or not: only the one of this id names it. */
function nameIn<T extends { id: string; parts?: string[] | undefined }>(
  items: readonly T[],
  id: string | null,
  part: string,
): T[] {
  return items.map((item) => {
    const others = (item.parts ?? []).filter((each) => each !== part);
    if (item.id === id) return { ...item, parts: [...others, part] };
    if (item.parts === undefined) return item;
    const { parts: _, ...rest } = item;
    return others.length === 0 ? (rest as T) : { ...item, parts: others };
  });
}

const put = (list: readonly string[], ids: readonly string[], isHere: boolean): string[] => [
  ...list.filter((id) => !ids.includes(id)),
  ...(isHere ? ids : []),
];
