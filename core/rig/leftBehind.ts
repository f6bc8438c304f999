import type { PartKind, Rig } from "./rig.ts";

/** A thing by the words people write for it, and what aboard it may be. */
interface Named {
  readonly words: RegExp;
  readonly says: string;
  readonly kinds: readonly PartKind[];
  readonly isThere?: (rig: Rig) => boolean;
}

const named: readonly Named[] = [
  { words: /\blive-?\s?wells?\b|\bstand-?pipes?\b/i, says: "live well", kinds: ["livewell"] },
  { words: /\bwash-?downs?\b/i, says: "washdown", kinds: [] },
  {
    words: /\bkickers?\b|\btie bars?\b/i,
    says: "kicker",
    kinds: [],
    isThere: ({ engines }) => engines.some(({ kind }) => kind === "kicker"),
  },
  { words: /\bmacerators?\b|\bfor the head\b|\bhead\b(?=.*\b(flush|waste)\b)/i, says: "head", kinds: ["head"] },
  { words: /\bsinks?\b/i, says: "sink", kinds: ["sink", "galley"] },
  { words: /\bballast\b|\bbags\b/i, says: "ballast", kinds: ["ballast"] },
  { words: /\bbow[- ]motors?\b/i, says: "bow motor", kinds: ["bow-motor"] },
  { words: /\bbimini\b/i, says: "bimini", kinds: ["bimini", "tower"] },
  { words: /\btable\b/i, says: "table", kinds: ["table"] },
  { words: /\bwindlass\b/i, says: "windlass", kinds: ["windlass"] },
  { words: /\bgenerators?\b/i, says: "generator", kinds: ["generator"] },
  { words: /\bair[- ]condition(er|ing)\b/i, says: "air conditioner", kinds: ["air-conditioner"] },
  { words: /\bshore[- ]power\b/i, says: "shore socket", kinds: ["charger-socket"] },
];

/** The words people write for a kind of thing; undefined of kinds that no other text names. */
export const wordsFor = (kind: PartKind): RegExp | undefined => named.find(({ kinds }) => kinds[0] === kind)?.words;

/** A text on the sheet that speaks of a thing that is not aboard. */
export interface LeftBehind {
  readonly list: "throughHulls" | "gear";
  /** Of a through-hull the part that it is; of gear its own id. */
  readonly item: string;
  readonly text: string;
  /** What it speaks of. */
  readonly says: string;
}

/** What the taking away of something left on the sheet: gear for it, and valves that say they serve it. */
export function findLeftBehind(rig: Rig): LeftBehind[] {
  const texts: Omit<LeftBehind, "says">[] = [
    ...rig.throughHulls.map(({ part, serves }) => ({ list: "throughHulls" as const, item: part, text: serves })),
    ...rig.gear.map(({ id, label }) => ({ list: "gear" as const, item: id, text: label })),
  ];
  return texts.flatMap((each) =>
    named
      .filter(({ words }) => words.test(each.text))
      .filter((thing) => !isAboard(rig, thing))
      .map(({ says }) => ({ ...each, says })),
  );
}

/** By its kind, or by a name that somebody gave a part; what is no kind of part, by the name of what uses power. */
const isAboard = (rig: Rig, { words, kinds, isThere }: Named): boolean =>
  isThere?.(rig) === true ||
  rig.parts.some(({ kind, label }) => kinds.includes(kind) || words.test(label)) ||
  (kinds.length === 0 && rig.loads.some(({ label }) => words.test(label)));
