/** What stands in the place of a name, or of an entry's words, that were struck. */
export const struckName = "(struck)";

/** The buyers of a handover in one line, for screens and messages; nobody is called by a name that was struck. */
export function formatBuyers(buyers: readonly { readonly name: string }[]): string {
  const names = buyers.flatMap(({ name }) => (name === struckName ? [] : [name]));
  return names.length === 0 && buyers.length > 0 ? "the buyer" : names.join(" and ");
}

interface Struck {
  readonly people: number;
  readonly entries: readonly string[];
  readonly photos: number;
}

/** What was struck from a sealed handover, in words: "Struck: 1 name and the 2 entries under it, 3 photos." */
export function formatStrike({ people, entries: { length }, photos }: Struck): string {
  const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;
  const under =
    length === 0
      ? ""
      : ` and the ${length === 1 ? "entry" : `${length} entries`} under ${people === 1 ? "it" : "them"}`;
  const names = people === 0 ? [] : [many(people, "name", "names") + under];
  return `Struck: ${[...names, ...(photos === 0 ? [] : [many(photos, "photo", "photos")])].join(", ")}.`;
}
