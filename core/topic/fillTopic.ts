import { findLabel, findText } from "../language/index.ts";
import { type Idiom, spellText, tellText } from "../region/index.ts";
import { type PartKind, quantityOf, type Rig, sayFigure, sayPlace } from "../rig/index.ts";
import { lowerFirst } from "../text/index.ts";
import { sayWritten } from "../units/index.ts";
import type { Topic } from "./topic.ts";

/** The school a store teaches, by topic id; topics not named take their first. */
export type SchoolChoices = Readonly<Record<string, string>>;

/** A unit that a store wrote behind a figure before figures brought their own is taken with it. */
const placeholder = /\{(at|each|start|rig):([a-zA-Z.-]+)\}(?: (?:kPa|mm|kg|m|L)\b)?/g;
const amount = /\{amount:([^{}|]{1,20})\}/g;
const choice = /\{if:([a-z-]+)\?([^{}|]*)(?:\|([^{}]*))?\}/g;

/**
 * The topic as it is told on this boat: the chosen school's words in place, in the store's spelling and units, and what stands
 * in braces replaced by what the rig says. What the rig does not say is told to be looked up, never made up.
 *
 * @example "It is {at:extinguisher}." with reach "Under the helm seat" → "It is under the helm seat."
 */
export function fillTopic(topic: Topic, rig: Rig, idiom: Idiom, choices: SchoolChoices = {}): Topic {
  const chosen = topic.schools?.find(({ id }) => id === choices[topic.id]) ?? topic.schools?.[0];
  const { schools, ...bare } = topic;
  const words =
    chosen === undefined
      ? bare
      : {
          ...bare,
          say: chosen.say,
          show: chosen.show ?? topic.show,
          does: chosen.does ?? topic.does,
          school: {
            id: chosen.id,
            name: tellText(chosen.name, idiom),
            tradeOff: tellText(chosen.tradeOff, idiom),
          },
        };
  const fill = (text: string) => fillText(text, rig, idiom);
  return {
    ...words,
    title: tellText(words.title, idiom),
    why: fill(words.why),
    say: fill(words.say),
    show: fill(words.show),
    does: fill(words.does),
    wrong: fill(words.wrong),
    cautions: words.cautions.map(fill),
  };
}

/**
 * A text with what stands in braces replaced by what the rig says. "{at:plug}" → "outside, lowest point of the transom";
 * "{start:breakers}" → those of them that the engine and the dash hang on, without the bow motor's;
 * "{amount:100 L}" → "26 gal" in a store of US units;
 * "{if:vhf?Call on 16.|Call for help.}" → the first where there is one of that kind aboard (or an
 * engine of that kind, or what `fittingNames` lists, such as a `trailer`), else the second.
 * A text the idiom's book does not have stays wholly in the language it was written in, its places too.
 */
export function fillText(text: string, rig: Rig, idiom: Idiom): string {
  const translated = findText(idiom.book, text);
  const book = translated === undefined ? undefined : idiom.book;
  const filled = (translated ?? text)
    .replace(placeholder, (_, verb: string, name: string) => formatOf(rig, verb, name, { ...idiom, book }))
    .replace(amount, (_, written: string) => sayWritten(written, idiom.units))
    .replace(choice, (_, kind: string, yes: string, no: string | undefined) => (hasKind(rig, kind) ? yes : (no ?? "")));
  return translated === undefined ? spellText(filled, idiom.spelling) : filled;
}

/** What a text may ask for that is neither a part nor an engine. */
const fittings: Readonly<Record<string, (rig: Rig) => boolean>> = {
  trailer: ({ trailer }) => trailer !== null,
  "reverse-wire": ({ trailer }) => trailer?.lockOut === "reverse-wire",
  "reverse-pin": ({ trailer }) => trailer?.lockOut === "pin",
  "combine-switch": ({ powerScheme }) => powerScheme?.endsWith("parallel") ?? false,
};
/** What `{if:…}` may ask for beside kinds of part and of engine. */
export const fittingNames: readonly string[] = Object.keys(fittings);

const hasKind = (rig: Rig, kind: string) =>
  fittings[kind]?.(rig) ??
  (rig.parts.some((part) => part.kind === kind) || rig.engines.some((engine) => engine.kind === kind));

function formatOf(rig: Rig, verb: string, name: string, idiom: Idiom): string {
  const { book } = idiom;
  const say = (text: string) => findText(book, text) ?? text;
  if (verb === "rig")
    return quantityOf(name) === null ? readFact(rig, name, say) : (sayFigure(rig, name, idiom) ?? say(asPlate));
  const all = rig.parts.filter(({ kind }) => kind === (name as PartKind));
  const parts = verb === "start" ? listStarting(rig, all) : all;
  if (parts.length === 0) return say("where we will show you");
  if (verb === "at") return sayPlace(rig, parts[0]!, book);
  return parts
    .map((part) => `${lowerFirst(findLabel(book, part.label) ?? part.label)} (${sayPlace(rig, part, book)})`)
    .join(", ");
}

/** Of breakers and batteries those that can keep an engine or a dash from starting: not what serves a bow motor alone. */
function listStarting(rig: Rig, parts: Rig["parts"]): Rig["parts"] {
  const bowLoads = new Set(rig.loads.flatMap(({ id, serves }) => (serves?.includes("bow-motor") ? [id] : [])));
  const hangsOn = (part: string) => {
    const batteries = rig.batteries.filter((battery) => battery.part === part);
    const feeds = rig.breakers.filter((breaker) => breaker.part === part).flatMap((breaker) => breaker.feeds);
    const isBowAlone = [
      batteries.length > 0 && batteries.every(({ use }) => use === "bow-motor"),
      feeds.length > 0 && feeds.every((load) => bowLoads.has(load)),
    ];
    return !isBowAlone.includes(true);
  };
  const starting = parts.filter(({ id }) => hangsOn(id));
  return starting.length === 0 ? parts : starting;
}

const asPlate = "as its plate says";

function readFact(rig: Rig, dotted: string, say: (text: string) => string): string {
  let at: unknown = rig;
  for (const name of dotted.split(".")) {
    at = typeof at === "object" && at !== null ? (at as Record<string, unknown>)[name] : undefined;
  }
  if (Array.isArray(at))
    return at.length === 0 ? say("nothing that we found") : at.map((each) => lowerFirst(say(String(each)))).join("; ");
  return typeof at === "number" || typeof at === "string" ? String(at).replaceAll("-", " ") : say(asPlate);
}
