import { findLabel, findText, type PhraseBook } from "../language/index.ts";
import type { Region } from "./regionSchema.ts";

/** How things are said: what the store measures in, how it spells, and the book of another language, where it is told in one. */
export interface Idiom extends Pick<Region, "units" | "spelling"> {
  readonly book?: PhraseBook | undefined;
}

/** What is written here in the words of the United States, and how a British store says it. Longer phrases first. */
const british: readonly (readonly [us: string, uk: string])[] = [
  ["license plates", "number plates"],
  ["license plate", "number plate"],
  ["turn signals", "indicators"],
  ["turn signal", "indicator"],
  ["tongue weight", "nose weight"],
  ["tires", "tyres"],
  ["tire", "tyre"],
  ["gasoline", "petrol"],
  ["harbors", "harbours"],
  ["harbor", "harbour"],
  ["colored", "coloured"],
  ["colors", "colours"],
  ["color", "colour"],
  ["gray", "grey"],
  ["aluminum", "aluminium"],
  ["liters", "litres"],
  ["liter", "litre"],
  ["centered", "centred"],
  ["center", "centre"],
  ["vapors", "vapours"],
  ["vapor", "vapour"],
  ["fueling", "fuelling"],
  ["fueled", "fuelled"],
  ["labeled", "labelled"],
  ["molded", "moulded"],
  ["odor", "odour"],
  ["neighbors", "neighbours"],
  ["neighbor", "neighbour"],
  ["maneuvers", "manoeuvres"],
  ["maneuver", "manoeuvre"],
  ["license", "licence"],
  ["windshield", "windscreen"],
  ["flashlight", "torch"],
  ["wrench", "spanner"],
  ["trunk", "boot"],
  ["curb", "kerb"],
  ["draft", "draught"],
];
const britishOf = new Map(british);
const american = new RegExp(`\\b(${british.map(([us]) => us).join("|")})\\b`, "gi");

/**
 * A text in the store's words: "Tire pressure" → "Tyre pressure" in a British store. Texts that ship are written for the
 * United States; what a store wrote itself is spelled the same way, so that one page has one spelling.
 */
export function spellText(text: string, spelling: Region["spelling"]): string {
  return spelling === "us"
    ? text
    : text.replace(american, (word) => likeCase(word, britishOf.get(word.toLowerCase())!));
}

/** A text without braces as it is told: in the idiom's language where its book has it, else in the store's spelling. */
export const tellText = (text: string, { book, spelling }: Idiom) => findText(book, text) ?? spellText(text, spelling);

/** What a thing aboard is called, as it is told. */
export const tellLabel = (label: string, { book, spelling }: Idiom) =>
  findLabel(book, label) ?? spellText(label, spelling);

/** Names of things, never said. */
const unsaid: ReadonlySet<string> = new Set(["id", "kind", "when", "family", "part"]);

/** Everything that is said in a list of checks, packs or words, in the store's words. Ids and kinds stay. */
export function spellAll<T>(value: T, spelling: Region["spelling"]): T {
  if (spelling === "us") return value;
  if (typeof value === "string") return spellText(value, spelling) as T;
  if (Array.isArray(value)) return value.map((each) => spellAll(each, spelling)) as T;
  if (typeof value !== "object" || value === null) return value;
  const spelled = Object.entries(value).map(([key, each]) => [key, unsaid.has(key) ? each : spellAll(each, spelling)]);
  return Object.fromEntries(spelled) as T;
}

function likeCase(model: string, word: string): string {
  if (model === model.toUpperCase()) return word.toUpperCase();
  return model[0] === model[0]!.toUpperCase() ? `${word[0]!.toUpperCase()}${word.slice(1)}` : word;
}
