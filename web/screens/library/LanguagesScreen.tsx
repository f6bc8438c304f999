import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import type { LanguageSheet } from "../../../api/index.ts";
import { listCardTexts } from "../../../core/card/index.ts";
import { languageNames, type PhraseBook } from "../../../core/language/index.ts";
import { type GlossaryEntry, listTexts, type Topic } from "../../../core/topic/index.ts";
import { ask } from "../../app/client.ts";
import { glossaryQuery, languagesQuery, libraryQuery, queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { refreshLibrary, useCanWrite } from "./useLibrary.ts";

type Other = PhraseBook["language"];

/** What is translated together: the texts of a topic, of a card, of a word; all places; all names. */
interface Group {
  readonly name: string;
  readonly part: Part;
  readonly kind: "texts" | "labels" | "places";
  readonly texts: readonly string[];
}

const parts = {
  musts: "Topics that are musts",
  topics: "Other topics",
  cards: "Owner's cards",
  places: "Places on the boats",
  labels: "Names of things aboard",
  says: "What switches do",
  glossary: "Glossary",
} as const;
type Part = keyof typeof parts;

/** Words in other languages: topics, cards, places and glossary, each text beside what stands for it. */
export function LanguagesScreen() {
  const sheet = useQuery(languagesQuery);
  const library = useQuery(libraryQuery);
  const glossary = useQuery(glossaryQuery);
  return (
    <LibraryFrame>
      <Fetched query={sheet} what="the languages">
        {(languages) => (
          <Fetched query={library} what="the library">
            {({ topics }) => <Languages sheet={languages} topics={topics} glossary={glossary.data?.entries ?? []} />}
          </Fetched>
        )}
      </Fetched>
    </LibraryFrame>
  );
}

interface LanguagesProps {
  readonly sheet: LanguageSheet;
  readonly topics: readonly Topic[];
  readonly glossary: readonly GlossaryEntry[];
}

function Languages({ sheet, topics, glossary }: LanguagesProps) {
  const [search, setSearch] = useSearchParams();
  const [language, setLanguage] = useState<Other>(sheet.books[0]!.language);
  const [words, setWords] = useState("");
  const [isMissingOnly, setMissingOnly] = useState(false);
  const asked = topics.find(({ id }) => id === search.get("topic"));
  const part = (search.get("part") as Part | null) ?? (asked === undefined || asked.must ? "musts" : "topics");
  const book = sheet.books.find((each) => each.language === language)!;
  const groups = useMemo(() => listGroups(sheet, topics, glossary), [sheet, topics, glossary]);
  const countOf = (of: readonly Group[]) => {
    const texts = of.flatMap((group) => group.texts.map((text) => hasWords(book, group, text)));
    return `${texts.filter(Boolean).length} of ${texts.length}`;
  };
  const wanted = words.trim().toLowerCase();
  const isFound = (text: string) => text.toLowerCase().includes(wanted);
  const shown = groups
    .filter((group) => group.part === part && (asked === undefined || group.name === asked.title))
    .map((group) => ({
      ...group,
      texts: group.texts.filter(
        (text) => (isFound(text) || isFound(group.name)) && !(isMissingOnly && hasWords(book, group, text)),
      ),
    }))
    .filter(({ texts }) => texts.length > 0);
  return (
    <>
      <p className="mt-3 max-w-3xl">
        A walk is read in the language of whoever gives it, the owner's page and cards in the buyer's. What has no words
        here stays English. What stands in braces is filled in by the boat and must stay.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <div role="radiogroup" aria-label="Language" className="flex gap-2">
          {sheet.books.map((each) => (
            <Chip key={each.language} isPicked={each.language === language} onPick={() => setLanguage(each.language)}>
              <span lang={each.language}>{languageNames[each.language]}</span>
            </Chip>
          ))}
        </div>
        <input
          type="search"
          aria-label="Find a text"
          placeholder="Find a text"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className={`${fieldLook} max-w-sm`}
        />
        <Chip kind="on-off" isPicked={isMissingOnly} onPick={() => setMissingOnly(!isMissingOnly)}>
          Only what is missing
        </Chip>
      </div>
      <nav aria-label="What is translated" className="mt-3 flex flex-wrap gap-x-1 border-b border-ink">
        {(Object.keys(parts) as Part[]).map((each) => (
          <button
            key={each}
            type="button"
            aria-current={each === part}
            onClick={() => setSearch({ part: each })}
            className={`head min-h-11 rounded-t-md px-3 ${each === part ? "bg-ink font-bold text-sheet" : ""}`}
          >
            {parts[each]}{" "}
            <span className="num font-normal">{countOf(groups.filter((group) => group.part === each))}</span>
          </button>
        ))}
      </nav>
      {asked !== undefined && (
        <button type="button" className="min-h-11 underline" onClick={() => setSearch({ part })}>
          All of them
        </button>
      )}
      {shown.map((group) => (
        <GroupLines
          key={`${group.kind} ${group.name} ${shown.length === 1}`}
          group={group}
          says={countOf([group])}
          isFirstOpen={shown.length === 1}
          book={book}
          own={sheet.own}
        />
      ))}
      {shown.length === 0 && <p className="py-3">{isMissingOnly ? "Nothing is missing here." : "No such text."}</p>}
    </>
  );
}

interface GroupLinesProps {
  readonly group: Group;
  /** How much of it has words. */
  readonly says: string;
  readonly isFirstOpen: boolean;
  readonly book: PhraseBook;
  readonly own: LanguageSheet["own"];
}

/** One topic's, card's or word's texts; they are drawn once it is opened, for there are more than a thousand. */
function GroupLines({ group, says, isFirstOpen, book, own }: GroupLinesProps) {
  const [isOpen, setOpen] = useState(isFirstOpen);
  return (
    <details className="border-b border-rule" open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="flex min-h-12 cursor-pointer flex-wrap items-center gap-x-3 font-bold">
        {group.name} <span className="num font-normal text-soft">{says}</span>
      </summary>
      {isOpen && (
        <ul className="pb-3">
          {group.texts.map((text) => (
            <Line key={`${book.language} ${text}`} book={book} group={group} text={text} own={own} />
          ))}
        </ul>
      )}
    </details>
  );
}

interface LineProps {
  readonly book: PhraseBook;
  readonly group: Group;
  readonly text: string;
  readonly own: LanguageSheet["own"];
}

/** One text and its words; saved by itself, where it stands. */
function Line({ book, group, text, own }: LineProps) {
  const { language } = book;
  const kept = book[group.kind][text] ?? "";
  const [words, setWords] = useState(kept);
  const canWrite = useCanWrite();
  const isOurs = own[language]?.[group.kind][text] !== undefined;
  const save = useMutation({
    mutationFn: (next: string | null) =>
      ask("setPhrase", { params: { language }, body: { kind: group.kind, text, words: next } }),
    onSuccess: async (_, next) => {
      await queryClient.invalidateQueries({ queryKey: languagesQuery.queryKey });
      await refreshLibrary();
      void queryClient.invalidateQueries({ queryKey: glossaryQuery.queryKey });
      const fresh = queryClient.getQueryData(languagesQuery.queryKey)?.books.find((each) => each.language === language);
      if (next === null) setWords(fresh?.[group.kind][text] ?? "");
    },
  });
  const isChanged = words.trim() !== kept;
  return (
    <li className="grid gap-x-4 gap-y-1 border-t border-rule py-2 md:grid-cols-2">
      <p lang="en">{text}</p>
      <div>
        <textarea
          lang={language}
          aria-label={`${languageNames[language]}: ${text}`}
          rows={Math.max(1, Math.ceil(Math.max(text.length, words.length) / 60))}
          maxLength={600}
          readOnly={!canWrite}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className={fieldLook}
        />
        {save.error !== null && <ErrorNotice error={save.error} />}
        <p className="flex flex-wrap items-center gap-x-4 text-sm" role="status">
          {kept === "" && !isChanged && <span className="text-soft">Stays English.</span>}
          {isOurs && <span className="text-soft">Our own words.</span>}
          {save.isSuccess && !isChanged && <span>Saved.</span>}
          {canWrite && isChanged && words.trim() !== "" && (
            <Button disabled={save.isPending} onClick={() => save.mutate(words.trim())}>
              Save
            </Button>
          )}
          {canWrite && isOurs && (
            <button type="button" className="min-h-11 underline" onClick={() => save.mutate(null)}>
              Back to the original words
            </button>
          )}
        </p>
      </div>
    </li>
  );
}

const hasWords = (book: PhraseBook, { kind }: Group, text: string) => book[kind][text] !== undefined;

function listGroups(sheet: LanguageSheet, topics: readonly Topic[], glossary: readonly GlossaryEntry[]): Group[] {
  return [
    ...topics.map(
      (topic): Group => ({
        name: topic.title,
        part: topic.must ? "musts" : "topics",
        kind: "texts",
        texts: listTexts(topic),
      }),
    ),
    ...sheet.cards.map(
      (card): Group => ({ name: card.title, part: "cards", kind: "texts", texts: listCardTexts(card) }),
    ),
    { name: parts.places, part: "places", kind: "places", texts: sheet.places },
    { name: parts.labels, part: "labels", kind: "labels", texts: sheet.labels },
    { name: parts.says, part: "says", kind: "texts", texts: sheet.says },
    ...glossary.map(
      ({ term, means }): Group => ({ name: term, part: "glossary", kind: "texts", texts: [term, means] }),
    ),
  ];
}
