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

/** Things that a pump fills or empties: what uses power for them is called a pump. */
const pumped: readonly PartKind[] = ["livewell", "ballast", "fish-box", "head", "sink", "tap"];
/** Things that use power, or whose pump does. */
const powered: readonly PartKind[] = [
  ...pumped,
  ...(["horn", "blower", "windlass", "docking-light", "wiper", "surf-tabs", "bow-motor", "tabs", "stereo"] as const),
  ...(["plotter", "vhf", "pump", "fridge", "air-conditioner", "downrigger", "gauges"] as const),
];
/** Of those, the ones into which water comes through the hull. */
const watered: readonly PartKind[] = ["livewell", "ballast", "head", "air-conditioner", "generator"];

export const isPowered = ({ kind }: Pick<Part, "kind">): boolean => powered.includes(kind);
export const isPumped = ({ kind }: Pick<Part, "kind">): boolean => pumped.includes(kind);
export const isWatered = ({ kind }: Pick<Part, "kind">): boolean => watered.includes(kind);

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

/** The rig with pump, switch and breaker for a thing, each as far as it is missing, called as the thing is. */
export function completeWorks(rig: Rig, part: Part): Rig {
  const { label } = part;
  const isFed = findWorks(rig, part).loads.length > 0;
  const fed = isFed ? rig : feedBy(rig, part, { label: isPumped(part) ? `${label} pump` : label });
  const works = findWorks(fed, part);
  const loads = works.loads.map(({ id }) => id);
  const switched =
    works.switches.length > 0 || works.loads.every(({ always }) => always) ? fed : switchBy(fed, loads, { label });
  return works.breakers.length > 0 ? switched : guardBy(switched, loads, { label });
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
