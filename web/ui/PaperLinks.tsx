import { type Language, languageNames } from "../../core/language/index.ts";
import { linkLook } from "./Button.tsx";
import { storeRegion } from "./storeTime.ts";

interface PaperLinksProps {
  readonly says: string;
  readonly href: string;
  /** What the buyer reads: where that is another one, the paper is offered in it too. */
  readonly language: Language;
}

/** A paper of the store's size, as everything is written and as its buyer reads. */
export function PaperLinks({ says, href, language }: PaperLinksProps) {
  const of = (each: Language) => `${href}?paper=${storeRegion().paper}&language=${each}`;
  return (
    <>
      <a href={of("en")} target="_blank" rel="noreferrer" className={linkLook("plain")}>
        {says}
      </a>
      {language !== "en" && (
        <a href={of(language)} target="_blank" rel="noreferrer" className={linkLook("plain")}>
          {says}, {languageNames[language]}
        </a>
      )}
    </>
  );
}
