import type { Condition } from "./condition.ts";
import { type ConditionRows, type Fact, readRows } from "./conditionRows.ts";
import { namePart } from "./partGroups.ts";
import { families, partKinds, powerSchemes, type Rig, switchKinds } from "./rig.ts";

export const schemeNames: Record<Rig["powerScheme"], string> = {
  single: "one battery, on and off",
  "one-two-both": "1, 2, both, off",
  "engine-house-parallel": "engine and house, with emergency parallel",
  "twin-engine-house-parallel": "two engines and house, with emergency parallel",
};

/** A fact that a condition may ask for, with what it says of boats: "have a windlass", "have no windlass". */
export interface OfferedFact {
  readonly fact: Fact;
  /** The fact as it is stored asks the opposite: "on a trailer" is "trailer equals nothing", denied. */
  readonly isDenied: boolean;
  readonly group: "Things aboard" | "Engines" | "Trailer" | "Batteries and switches" | "The boat";
  readonly says: string;
  readonly saysNot: string;
}

const offer = (
  group: OfferedFact["group"],
  fact: Fact,
  says: string,
  saysNot: string,
  isDenied = false,
): OfferedFact => ({
  fact,
  isDenied,
  group,
  says,
  saysNot,
});
const plural = /[^s]s$/;
const article = (name: string) => (plural.test(name) ? "" : /^[aeiou]/i.test(name) ? "an " : "a ");
const equals = (path: string, value: string | number | boolean | null): Fact => ({ equals: path, value });

/** All facts that a condition can be made of by choosing. */
export const offeredFacts: readonly OfferedFact[] = [
  ...partKinds.map((kind) =>
    offer(
      "Things aboard",
      { has: kind },
      `have ${article(namePart(kind))}${namePart(kind)}`,
      `have no ${namePart(kind)}`,
    ),
  ),
  offer("Things aboard", { count: "battery", atLeast: 2 }, "have two batteries or more", "have one battery at most"),
  offer("Things aboard", equals("tanks.kind", "fresh-water"), "have a fresh water tank", "have no fresh water tank"),
  offer("Things aboard", equals("tanks.kind", "waste"), "have a waste tank", "have no waste tank"),
  ...(["outboard", "sterndrive", "inboard", "kicker"] as const).map((kind) =>
    offer("Engines", equals("engines.kind", kind), `have ${article(kind)}${kind}`, `have no ${kind}`),
  ),
  offer("Engines", { atLeast: "engines", value: 2 }, "have two engines or more", "have one engine"),
  offer("Engines", equals("engines.fuel", "diesel"), "have a diesel engine", "have no diesel engine"),
  offer(
    "Engines",
    equals("engines.start", "pull"),
    "have an engine started by pulling",
    "have no engine started by pulling",
  ),
  offer(
    "Engines",
    equals("engines.twoStrokeOil", "injected"),
    "have an engine with oil injection",
    "have no engine with oil injection",
  ),
  offer(
    "Engines",
    equals("engines.twoStrokeOil", "mixed"),
    "have an engine that needs oil mixed into the fuel",
    "have no engine that needs oil mixed into the fuel",
  ),
  offer(
    "Engines",
    equals("engines.digitalControls", true),
    "have digital engine controls",
    "have no digital engine controls",
  ),
  offer(
    "Engines",
    equals("enclosedFuel", true),
    "have enclosed fuel or engine spaces",
    "have no enclosed fuel or engine spaces",
  ),
  offer("Trailer", equals("trailer", null), "are on a trailer", "are not on a trailer", true),
  offer(
    "Trailer",
    equals("trailer.brakes", "surge"),
    "have surge brakes on the trailer",
    "have no surge brakes on the trailer",
  ),
  offer(
    "Trailer",
    equals("trailer.brakes", "electric"),
    "have electric trailer brakes",
    "have no electric trailer brakes",
  ),
  offer("Trailer", equals("trailer.lockOut", "pin"), "have a reverse pin", "have no reverse pin"),
  offer("Trailer", equals("trailer.lockOut", "reverse-wire"), "have a reverse wire", "have no reverse wire"),
  offer("Trailer", equals("trailer.swingTongue", true), "have a swing tongue", "have no swing tongue"),
  ...powerSchemes.map((scheme) =>
    offer(
      "Batteries and switches",
      equals("powerScheme", scheme),
      `have battery switches for ${schemeNames[scheme]}`,
      `have no battery switches for ${schemeNames[scheme]}`,
    ),
  ),
  offer(
    "Batteries and switches",
    equals("loads.always", true),
    "have something that stays live",
    "have nothing that stays live",
  ),
  ...switchKinds.map((kind) =>
    offer(
      "Batteries and switches",
      equals("panel.kind", kind),
      `have a ${kind.replaceAll("-", " ")} on the panel`,
      `have no ${kind.replaceAll("-", " ")} on the panel`,
    ),
  ),
  offer("The boat", equals("used", null), "are used", "are new", true),
  ...families.map((family) =>
    offer(
      "The boat",
      equals("family", family),
      `are of the kind ${family.replaceAll("-", " ")}`,
      `are not of the kind ${family.replaceAll("-", " ")}`,
    ),
  ),
];

const keyOf = (fact: Fact) => JSON.stringify(fact);
const byKey = new Map(offeredFacts.map((offered) => [keyOf(offered.fact), offered]));

/** The offered fact that is asked for; null where somebody wrote one by hand that is not offered. */
export const findFact = (fact: Fact): OfferedFact | null => byKey.get(keyOf(fact)) ?? null;

/** What one fact says of boats: "have a windlass", "are not on a trailer". */
export function describeFact(fact: Fact, isNot: boolean): string {
  const offered = findFact(fact);
  if (offered !== null) return offered.isDenied === isNot ? offered.says : offered.saysNot;
  const path = (dotted: string) => dotted.split(".").join(" ");
  if ("equals" in fact) return `${isNot ? "do not have" : "have"} ${path(fact.equals)} = ${String(fact.value)}`;
  if ("has" in fact) return `have ${isNot ? "no" : "a"} ${namePart(fact.has)}`;
  const [what, least] = "count" in fact ? [namePart(fact.count), fact.atLeast] : [path(fact.atLeast), fact.value];
  return `have ${isNot ? "fewer than" : "at least"} ${least}: ${what}`;
}

/** The boats a condition is met on, in words: "Boats that have a windlass and are on a trailer". */
export function describeCondition(condition: Condition): string {
  const rows = readRows(condition);
  if (rows === null) return "Boats that meet a condition written by hand";
  return describeRows(rows);
}

export function describeRows(rows: ConditionRows): string {
  if (rows.length === 0) return "Every boat";
  const said = rows.map((row) => row.map(({ fact, isNot }) => describeFact(fact, isNot)).join(" or "));
  return `Boats that ${said.join(", and ")}`;
}
