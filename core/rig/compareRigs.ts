import { type SheetSection, sheetSections } from "./checkRig.ts";
import type { Rig } from "./rig.ts";

/** One way in which a boat is not as its template. */
export interface Difference {
  readonly section: SheetSection;
  readonly what: "added" | "gone" | "changed";
  /** The thing, by its name. */
  readonly name: string;
  /** Of something changed: which of its facts, from what to what. */
  readonly facts: readonly { readonly fact: string; readonly from: string; readonly to: string }[];
}

const lists = [
  ["places", "stations"],
  ["places", "parts"],
  ["power", "batteries"],
  ["power", "powerSwitches"],
  ["panel", "loads"],
  ["panel", "panel"],
  ["breakers", "breakers"],
  ["engines", "engines"],
  ["tanks", "tanks"],
  ["tanks", "throughHulls"],
  ["gear", "gear"],
] as const satisfies readonly (readonly [SheetSection, keyof Rig])[];

const single = [
  "maker",
  "model",
  "modelYear",
  "family",
  "loaM",
  "beamM",
  "tubes",
  "enclosedFuel",
  "powerScheme",
] as const;

type Item = { readonly id: string; readonly label?: string | null };

/**
 * How does a boat differ from the template it was described from? The buyer's own options, in the order of the sheet; empty
 * when nothing differs. Things are matched by id.
 *
 * @example a windlass added → [{section: "places", what: "added", name: "Windlass", facts: []}]
 */
export function compareRigs(template: Rig, boat: Rig): Difference[] {
  const names = listNames([template, boat]);
  const found: Difference[] = [];
  const facts = single.flatMap((name) => compareFact(names, name, template[name], boat[name]));
  facts.push(...compareFact(names, "used", formatUsed(template), formatUsed(boat)));
  facts.push(...compareFacts(names, template.weights ?? {}, boat.weights ?? {}));
  if (facts.length > 0) found.push({ section: "boat", what: "changed", name: "The boat", facts });
  for (const [section, name] of lists) found.push(...compareList(names, section, template[name], boat[name]));
  found.push(...compareTrailer(names, template.trailer, boat.trailer));
  const wired = compareFact(names, "wiring", template.wiring ?? null, boat.wiring ?? null);
  if (wired.length > 0) found.push({ section: "power", what: "changed", name: "The wiring", facts: [] });
  return found.sort((a, b) => rank(a.section) - rank(b.section));
}

const formatUsed = ({ used }: Rig) => (used === undefined ? "no" : ["yes", ...used.changes].join("; "));
const rank = (section: SheetSection) => sheetSections.indexOf(section);

type Names = ReadonlyMap<string, string>;

/** The names of all things on both boats, by id: what a fact names is said by its name, not by its id. */
function listNames(rigs: readonly Rig[]): Names {
  return new Map(
    rigs.flatMap((rig) =>
      lists.flatMap(([, name]) =>
        rig[name].flatMap(({ id, label }: Item) => (label == null ? [] : [[id, label] as const])),
      ),
    ),
  );
}

function compareList(
  names: Names,
  section: SheetSection,
  before: readonly Item[],
  after: readonly Item[],
): Difference[] {
  const was = new Map(before.map((item) => [item.id, item]));
  const is = new Set(after.map(({ id }) => id));
  const nameOf = (item: Item) => item.label ?? item.id;
  return [
    ...after.flatMap((item): Difference[] => {
      const old = was.get(item.id);
      if (old === undefined) return [{ section, what: "added", name: nameOf(item), facts: [] }];
      const facts = compareFacts(names, old, item);
      return facts.length === 0 ? [] : [{ section, what: "changed", name: nameOf(item), facts }];
    }),
    ...before
      .filter(({ id }) => !is.has(id))
      .map((item): Difference => ({ section, what: "gone", name: nameOf(item), facts: [] })),
  ];
}

function compareTrailer(names: Names, before: Rig["trailer"], after: Rig["trailer"]): Difference[] {
  const one = { section: "trailer", name: "Trailer", facts: [] } as const;
  if (before === null) return after === null ? [] : [{ ...one, what: "added" }];
  if (after === null) return [{ ...one, what: "gone" }];
  const facts = compareFacts(names, before, after);
  return facts.length === 0 ? [] : [{ ...one, what: "changed", facts }];
}

function compareFacts(names: Names, before: object, after: object): Difference["facts"][number][] {
  // Where a text was written is a note for whoever writes it.
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((key) => key !== "reachAt");
  const value = (of: object, name: string): unknown => (of as Record<string, unknown>)[name];
  return keys.flatMap((name) => compareFact(names, name, value(before, name), value(after, name)));
}

function compareFact(names: Names, fact: string, from: unknown, to: unknown): Difference["facts"][number][] {
  if (JSON.stringify(from ?? null) === JSON.stringify(to ?? null)) return [];
  return [{ fact, from: formatValue(names, from), to: formatValue(names, to) }];
}

function formatValue(names: Names, value: unknown): string {
  if (value === undefined || value === null) return "nothing";
  if (value === true) return "yes";
  if (value === false) return "no";
  if (Array.isArray(value))
    return value.length === 0 ? "nothing" : value.map((each) => formatValue(names, each)).join(", ");
  if (typeof value === "string") return names.get(value) ?? value.replaceAll("-", " ");
  if (typeof value !== "object") return String(value);
  const { label, xM, yM } = value as { label?: string; xM?: number; yM?: number };
  if (xM !== undefined && yM !== undefined) return `${xM.toFixed(2)} m forward, ${formatAcross(yM)}`;
  return (
    label ??
    Object.values(value)
      .map((each) => formatValue(names, each))
      .join(" ")
  );
}

const formatAcross = (yM: number) =>
  yM === 0 ? "in the middle" : `${Math.abs(yM).toFixed(2)} m to ${yM > 0 ? "starboard" : "port"}`;
