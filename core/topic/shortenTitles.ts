/** Titles for a narrow list: what stands before the colon, or all of it where two would then read alike. */
export function shortenTitles(titles: readonly string[]): string[] {
  const heads = titles.map((title) => title.split(":")[0]!);
  return titles.map((title, i) => (heads.filter((head) => head === heads[i]).length > 1 ? title : heads[i]!));
}
