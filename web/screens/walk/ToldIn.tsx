import { type Language, languageNames } from "../../../core/language/index.ts";
import type { Walk } from "./useWalk.ts";

/** In which language a topic is read aloud: one's own, or the buyer's. Only where this topic has both. */
export function ToldIn({ walk }: { walk: Walk }) {
  const { told } = walk.delivery;
  const { id } = walk.step.topic;
  const here = (Object.keys(told) as Language[]).filter((language) => told[language]?.[id] !== undefined);
  const choices: readonly Language[] = here.length === 0 ? [] : [...new Set<Language>(["en", ...here])];
  if (choices.length < 2) return null;
  const shown = walk.languageOf(id);
  return (
    <fieldset className="mt-1 flex flex-wrap items-center gap-1 text-base">
      <legend className="sr-only">Told in</legend>
      {choices.map((language) => (
        <button
          key={language}
          type="button"
          lang={language}
          aria-pressed={language === shown}
          onClick={() => walk.setLanguage(language)}
          className={`min-h-12 rounded-md px-3 ${language === shown ? "bg-ink font-bold text-sheet" : "underline underline-offset-4"}`}
        >
          {languageNames[language]}
        </button>
      ))}
    </fieldset>
  );
}
