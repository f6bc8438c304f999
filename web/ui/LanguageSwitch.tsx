import { type Language, languageNames } from "../../core/language/index.ts";

interface LanguageSwitchProps {
  /** What is chosen, for those who do not see it: "Told in". */
  readonly legend: string;
  readonly choices: readonly Language[];
  readonly shown: Language;
  readonly onChange: (language: Language) => void;
}

/** A language of few; nothing where there is none to choose. */
export function LanguageSwitch({ legend, choices, shown, onChange }: LanguageSwitchProps) {
  if (choices.length < 2) return null;
  return (
    <fieldset className="mt-1 flex flex-wrap items-center gap-1 text-base">
      <legend className="sr-only">{legend}</legend>
      {choices.map((language) => (
        <button
          key={language}
          type="button"
          lang={language}
          aria-pressed={language === shown}
          onClick={() => onChange(language)}
          className={`min-h-12 rounded-md px-3 ${language === shown ? "bg-ink font-bold text-sheet" : "underline underline-offset-4"}`}
        >
          {languageNames[language]}
        </button>
      ))}
    </fieldset>
  );
}
