import { formatPartKind } from "./partGroups.ts";
import type { Part, PartKind, Place, Rig } from "./rig.ts";

/** The lists of a rig whose items have an id. */
export const rigLists = [
  "stations",
  "parts",
  "batteries",
  "powerSwitches",
  "loads",
  "panel",
  "breakers",
  "engines",
  "tanks",
  "throughHulls",
  "gear",
] as const;
export type RigList = (typeof rigLists)[number];
export type ItemOf<L extends RigList> = Rig[L][number];

/** An id of the list's own, from a name: "Bow motor" → "bow-motor", the second time "bow-motor-2". */
export function createItemId(rig: Rig, list: RigList, name: string): string {
  const taken = new Set<string>(rig[list].map(({ id }) => id));
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 50) || "item";
  if (!taken.has(base)) return base;
  for (let i = 2; ; i++) if (!taken.has(`${base}-${i}`)) return `${base}-${i}`;
}

/** The rig with one more item at the end of a list. */
export function addItem<L extends RigList>(rig: Rig, list: L, item: ItemOf<L>): Rig {
  return { ...rig, [list]: [...rig[list], item] };
}

/** The rig with some facts of one item changed; `undefined` takes an optional fact away. */
export function changeItem<L extends RigList>(rig: Rig, list: L, id: string, change: Partial<ItemOf<L>>): Rig {
  const items = (rig[list] as readonly ItemOf<L>[]).map((item) =>
    (item as { id: string }).id === id ? dropUndefined({ ...item, ...change }) : item,
  );
  return { ...rig, [list]: items };
}

/** The rig with some facts of a part changed; one that is moved remembers where its way to it was written, and is looked at. */
export function changePart(rig: Rig, id: string, change: Partial<Part>): Rig {
  const part = rig.parts.find((each) => each.id === id);
  const isMoved = change.at !== undefined && part?.reach !== undefined && part.reachAt === undefined;
  const isLookedAt = change.at !== undefined || change.station !== undefined || "reach" in change;
  const known = {
    ...(isLookedAt ? { usual: undefined } : {}),
    ...("reach" in change ? { reachAt: undefined } : isMoved ? { reachAt: part.at } : {}),
  };
  return changeItem(rig, "parts", id, { ...known, ...change } as Partial<Part>);
}

/** So far away, words that said where it was say something else. */
const movedM = 0.8;

/** Whether a part was moved so far that the way to it may not hold any more. */
export const isReachDoubtful = ({ reach, reachAt, at }: Part): boolean =>
  reach !== undefined && reachAt !== undefined && Math.hypot(reachAt.xM - at.xM, reachAt.yM - at.yM) > movedM;

/** The rig with an item moved to another place in its list; the panel and the breakers stand in physical order. */
export function moveItem(rig: Rig, list: RigList, id: string, to: number): Rig {
  const items: { id: string }[] = [...rig[list]];
  const from = items.findIndex((item) => item.id === id);
  if (from < 0) return rig;
  const [item] = items.splice(from, 1);
  items.splice(Math.max(0, Math.min(items.length, to)), 0, item!);
  return { ...rig, [list]: items };
}

/**
 * The rig without an item, and without what cannot be without it: batteries, switches, breakers and through-hulls whose place
 * it was, a tank's fill, what switches and breakers lead to. A place to stand that things are at is kept: the rig as it was.
 */
export function removeItem(rig: Rig, list: RigList, id: string): Rig {
  if (list === "stations" && (rig.stations.length === 1 || rig.parts.some(({ station }) => station === id))) return rig;
  if (list === "engines" && rig.engines.length === 1) return rig;
  const items = (rig[list] as readonly { id: string }[]).filter((item) => item.id !== id);
  const without = { ...rig, [list]: items } as Rig;
  if (list === "parts") return removePlace(without, id);
  if (list === "loads") return removeLoad(without, id);
  if (list === "batteries")
    return {
      ...without,
      loads: without.loads.map((load) => (load.from === id ? dropUndefined({ ...load, from: undefined }) : load)),
    };
  return without;
}

function removePlace(rig: Rig, part: string): Rig {
  const gone = rig.batteries.filter((battery) => battery.part === part).map(({ id }) => id);
  const rest: Rig = {
    ...rig,
    powerSwitches: rig.powerSwitches.filter((each) => each.part !== part),
    breakers: rig.breakers.filter((each) => each.part !== part),
    loads: rig.loads.map((each) => dropPart(each, part)),
    throughHulls: rig.throughHulls.filter((each) => each.part !== part).map((each) => dropPart(each, part)),
    tanks: rig.tanks.map((tank) => (tank.fill === part ? dropUndefined({ ...tank, fill: undefined }) : tank)),
  };
  return gone.reduce((all, id) => removeItem(all, "batteries", id), rest);
}

/** Without a part among those it names; naming none, it is for all of its kind again. */
function dropPart<T extends { parts?: string[] | undefined }>(item: T, part: string): T {
  if (item.parts === undefined) return item;
  const others = item.parts.filter((each) => each !== part);
  return dropUndefined({ ...item, parts: others.length === 0 ? undefined : others });
}

function removeLoad(rig: Rig, load: string): Rig {
  return {
    ...rig,
    panel: rig.panel.map((item) => ({
      ...item,
      positions: item.positions.map((position) => ({
        ...position,
        powers: position.powers.filter((id) => id !== load),
      })),
    })),
    breakers: rig.breakers.map((breaker) => ({ ...breaker, feeds: breaker.feeds.filter((id) => id !== load) })),
  };
}

/** A thing put on the plan: named for its kind, told at the nearest place aboard to stand. */
export function createPart(rig: Rig, kind: PartKind, at: Place): Part {
  const name = formatPartKind(kind);
  const same = rig.parts.filter((part) => part.kind === kind).length;
  const label = same === 0 ? name : `${name} ${same + 1}`;
  return { id: createItemId(rig, "parts", label), kind, label, station: findNearestStation(rig, at), at };
}

/** The place to stand nearest to a spot; aboard, where the boat has such places. */
export function findNearestStation(rig: Rig, at: Place): string {
  const some = rig.stations.filter(({ level }) => level === "aboard");
  const all = some.length > 0 && at.xM > 0 ? some : rig.stations;
  const far = (place: Place) => Math.hypot(place.xM - at.xM, place.yM - at.yM);
  return all.reduce((best, station) => (far(station.at) < far(best.at) ? station : best)).id;
}

/** A copy without keys whose value is undefined: that is how an optional fact is taken away. */
function dropUndefined<T extends object>(item: T): T {
  return Object.fromEntries(Object.entries(item).filter(([, value]) => value !== undefined)) as T;
}
