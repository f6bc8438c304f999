import type { Language } from "../../../core/language/index.ts";
import { LanguageSwitch } from "../../ui/LanguageSwitch.tsx";
import type { Walk } from "./useWalk.ts";

/** In which language a topic is read aloud: one's own, or the buyer's. Only where this topic has both. */
export function ToldIn({ walk }: { walk: Walk }) {
  const { told } = walk.delivery;
  const { id } = walk.step.topic;
  const here = (Object.keys(told) as Language[]).filter((language) => told[language]?.[id] !== undefined);
  const choices = here.length === 0 ? [] : [...new Set<Language>(["en", ...here])];
  return <LanguageSwitch legend="Told in" choices={choices} shown={walk.languageOf(id)} onChange={walk.setLanguage} />;
}
