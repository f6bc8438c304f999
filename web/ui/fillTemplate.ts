/** Puts words in the places of a message template, `{boat}` and the like; a place nobody knows stays. */
export const fillTemplate = (text: string, words: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (place, name: string) => words[name] ?? place);

/** How people are called in a message: `Ilse Varnholt and Piet Varnholt` → `Ilse and Piet`. */
export const formatFirstNames = (buyers: string): string =>
  buyers
    .split(" and ")
    .map((name) => name.split(" ")[0])
    .join(" and ");

/** `{falls} {date}` of something that falls due: `falls due about Mon 1 Jun`; `has been due since 3 May 2025`. */
export const fallsWords = (isOverdue: boolean): string => (isOverdue ? "has been due since" : "falls due about");
