import { sayAmount, type UnitSystem } from "../units/index.ts";
import { quantityOf } from "./figures.ts";
import { type SheetSection, sheetSections } from "./finding.ts";
import { resizeRig } from "./resizeRig.ts";
import type { Place, Rig } from "./rig.ts";

/** One way in which a boat is not as its template. */
export interface Difference {
  readonly section: SheetSection;
  readonly what: "added" | "gone" | "changed";
  /** The thing, by its name. */
  readonly name: string;
  /** Of something changed: which of its facts, from what to what, in the units asked for. */
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
 * when nothing differs. Things are matched by id. What only moved along with another length or beam (`resizeRig`) is none.
 *
 * @param units that amounts are said in.
 * @example a windlass added → [{section: "places", what: "added", name: "Windlass", facts: []}]
 */
export function compareRigs(template: Rig, boat: Rig, units: UnitSystem): Difference[] {
  const said: Saying = { names: listNames([template, boat]), units };
  const found: Difference[] = [];
  const facts = single.flatMap((name) => compareFact(said, name, template[name], boat[name]));
  facts.push(...compareFact(said, "used", formatUsed(template), formatUsed(boat)));
  facts.push(...compareFacts(said, template.weights ?? {}, boat.weights ?? {}));
  if (facts.length > 0) found.push({ section: "boat", what: "changed", name: "The boat", facts });
  const alike = resizeRig(template, boat.loaM, boat.beamM);
  for (const [section, name] of lists) found.push(...compareList(said, section, alike[name], boat[name]));
  found.push(...compareTrailer(said, alike.trailer, boat.trailer));
  const wired = compareFact(said, "wiring", template.wiring ?? null, boat.wiring ?? null);
  if (wired.length > 0) found.push({ section: "power", what: "changed", name: "The wiring", facts: [] });
  return found.sort((a, b) => rank(a.section) - rank(b.section));
}

const formatUsed = ({ used }: Rig) => (used === undefined ? "no" : ["yes", ...used.changes].join("; "));
const rank = (section: SheetSection) => sheetSections.indexOf(section);

type Names = ReadonlyMap<string, string>;

interface Saying {
  readonly names: Names;
  readonly units: UnitSystem;
}

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
  said: Saying,
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
      const facts = compareFacts(said, old, item);
      return facts.length === 0 ? [] : [{ section, what: "changed", name: nameOf(item), facts }];
    }),
    ...before
      .filter(({ id }) => !is.has(id))
      .map((item): Difference => ({ section, what: "gone", name: nameOf(item), facts: [] })),
  ];
}

function compareTrailer(said: Saying, before: Rig["trailer"], after: Rig["trailer"]): Difference[] {
  const one = { section: "trailer", name: "Trailer", facts: [] } as const;
  if (before === null) return after === null ? [] : [{ ...one, what: "added" }];
  if (after === null) return [{ ...one, what: "gone" }];
  const facts = compareFacts(said, before, after);
  return facts.length === 0 ? [] : [{ ...one, what: "changed", facts }];
}

function compareFacts(said: Saying, before: object, after: object): Difference["facts"][number][] {
  // Where a text was written is a note for whoever writes it.
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((key) => key !== "reachAt");
  const value = (of: object, name: string): unknown => (of as Record<string, unknown>)[name];
  return keys.flatMap((name) => compareFact(said, name, value(before, name), value(after, name)));
}

function compareFact(said: Saying, fact: string, from: unknown, to: unknown): Difference["facts"][number][] {
  if (isSame(from ?? null, to ?? null)) return [];
  return [{ fact, from: formatValue(said, fact, from), to: formatValue(said, fact, to) }];
}

/** So near to each other two places are one: lengths typed one after the other move what is aboard by whole centimetres. */
const samePlaceM = 0.05;

function isSame(from: unknown, to: unknown): boolean {
  if (isPlace(from) && isPlace(to)) return Math.hypot(from.xM - to.xM, from.yM - to.yM) < samePlaceM;
  return JSON.stringify(from) === JSON.stringify(to);
}

const isPlace = (value: unknown): value is Place =>
  typeof value === "object" && value !== null && "xM" in value && "yM" in value;

function formatValue(said: Saying, fact: string, value: unknown): string {
  if (value === undefined || value === null) return "nothing";
  if (value === true) return "yes";
  if (value === false) return "no";
  if (typeof value === "number") return formatNumber(said, fact, value);
  if (Array.isArray(value))
    return value.length === 0 ? "nothing" : value.map((each) => formatValue(said, fact, each)).join(", ");
  if (typeof value === "string") return said.names.get(value) ?? value.replaceAll("-", " ");
  if (isPlace(value)) return formatPlace(said, value);
  const { label } = value as { label?: string };
  return (
    label ??
    Object.entries(value)
      .map(([name, each]) => formatValue(said, name, each))
      .join(" ")
  );
}

function formatNumber({ units }: Saying, fact: string, value: number): string {
  const quantity = quantityOf(fact);
  return quantity === null ? String(value) : sayAmount(value, quantity, units);
}

function formatPlace({ units }: Saying, { xM, yM }: Place): string {
  const metres = (m: number) => sayAmount(m, "length", units);
  const across = yM === 0 ? "in the middle" : `${metres(Math.abs(yM))} to ${yM > 0 ? "starboard" : "port"}`;
  return `${metres(xM)} forward, ${across}`;
}
