import type { LanguageSheet } from "../../api/index.ts";
import { cards, rigTemplates } from "../../content/index.ts";
import { phraseBooks } from "../../content/languages/index.ts";
import { findBook, type Language, layBook, listBraces, type PhraseBook } from "../../core/language/index.ts";
import { nameBattery, type Rig } from "../../core/rig/index.ts";
import { type ToldIn, type Topic, tellTopics } from "../../core/topic/index.ts";
import type { Clock } from "../clock.ts";
import { Failure } from "../failure.ts";
import type { PaperReader } from "../pdf/paperReader.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { People } from "../repositories/people.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { Templates } from "../repositories/templates.ts";
import type { Library } from "./libraryService.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly people: People;
  readonly templates: Templates;
  readonly rigService: Pick<RigService, "read">;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

type Other = PhraseBook["language"];
interface Phrase {
  readonly kind: "texts" | "labels" | "places";
  readonly text: string;
  readonly words: string | null;
}

/** Boats whose words are offered to be translated: those that are handed over next. */
const mostBoats = 60;

/** What is told in other languages: the phrases that ship with the store's own laid over them. */
export function createLanguageService(parts: Parts) {
  const { people, settings } = parts;
  const readBooks = async (): Promise<PhraseBook[]> => {
    const { phrases } = await settings.read();
    return phraseBooks.map((book) => layBook(book, phrases));
  };
  return {
    readBooks,
    findBook: async (language: Language | undefined) =>
      language === undefined ? null : (findBook(await readBooks(), language) ?? null),
    /** Whom a paper in this language is for. */
    findReader: async (language: Language): Promise<PaperReader> => ({
      language,
      book: findBook(await readBooks(), language) ?? null,
    }),
    /** The languages that somebody here reads: the buyer and the staff; never the one that everything is written in. */
    async listNeeded(buyer: Language | undefined): Promise<Other[]> {
      const staff = (await people.list()).flatMap(({ isOff, language }) => (isOff ? [] : [language]));
      const needed = new Set<Language>([...staff, ...(buyer === undefined ? [] : [buyer])]);
      return phraseBooks.map(({ language }) => language).filter((language) => needed.has(language));
    },
    /** The topics of a boat in these languages, as the library says them today. */
    async tell(topics: readonly Topic[], rig: Rig, library: Library, languages: readonly Language[]): Promise<ToldIn> {
      const books = (await readBooks()).filter(({ language }) => languages.includes(language));
      const here = new Set(topics.map(({ id }) => id));
      const written = library.topics.filter(({ id }) => here.has(id));
      const told = books.map((book) => [
        book.language,
        tellTopics(written, rig, { ...library.idiom, book }, library.schools),
      ]);
      return Object.fromEntries(told);
    },
    async describe(): Promise<LanguageSheet> {
      const rigs = [...Object.values<Rig>(rigTemplates), ...(await listRigs(parts))];
      return {
        books: await readBooks(),
        own: (await settings.read()).phrases,
        cards,
        places: sortUnique(rigs.flatMap(listPlaces)),
        labels: sortUnique(rigs.flatMap(listLabels)),
        says: sortUnique(rigs.flatMap(listSwitchWords)),
      };
    },
    /** Failure: `braces-differ` where the words ask the boat something else than the text does. */
    async setPhrase(language: Other, { kind, text, words }: Phrase) {
      if (words !== null && listBraces(words).join() !== listBraces(text).join())
        throw new Failure("braces-differ", { wanted: listBraces(text), got: listBraces(words) });
      await settings.change(({ phrases }) => {
        const own = { texts: {}, labels: {}, places: {}, ...phrases[language] };
        const { [text]: _, ...others } = own[kind];
        const changed = { ...own, [kind]: words === null ? others : { ...others, [text]: words } };
        return { phrases: { ...phrases, [language]: changed } };
      });
    },
  };
}

export type LanguageService = ReturnType<typeof createLanguageService>;

/** The store's own templates and the boats that are handed over next. */
async function listRigs({ boats, deliveries, templates, rigService, clock }: Parts): Promise<Rig[]> {
  const coming = (await deliveries.listFrom(clock.today())).slice(0, mostBoats);
  const sold = await boats.findMany(coming.map(({ boatId }) => boatId));
  const texts = [...(await templates.list()), ...sold.values()].map(({ rigText }) => rigText);
  return texts.map((text) => rigService.read(text));
}

const sortUnique = (words: readonly string[]) => [...new Set(words)].sort((a, b) => a.localeCompare(b));

const listPlaces = ({ parts, stations }: Rig) => [
  ...parts.flatMap(({ reach }) => reach ?? []),
  ...stations.map(({ label }) => label),
];

/** What the cards of a boat call things; what stands on a switch stays as it stands there. */
const listLabels = (rig: Rig) => [
  ...[rig.loads, rig.breakers, rig.tanks, rig.gear, rig.batteries, rig.engines, rig.throughHulls, rig.parts]
    .flat()
    .map(({ label }) => label),
  ...rig.batteries.map(nameBattery),
  ...rig.throughHulls.map(({ serves }) => serves),
];

/** What the sheet of a boat says of its switches. */
const listSwitchWords = (rig: Rig) => [
  ...rig.powerSwitches.flatMap(({ positions }) => positions.map(({ does }) => does)),
  ...rig.panel.flatMap(({ note }) => note ?? []),
];
