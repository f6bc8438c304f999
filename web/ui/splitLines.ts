/** A list as it is typed, a line each: empty lines left out, each cut to `mostLong` characters, at most `most` of them. */
export const splitLines = (text: string, mostLong: number, most: number): string[] =>
  text
    .split("\n")
    .map((line) => line.trim().slice(0, mostLong))
    .filter((line) => line !== "")
    .slice(0, most);
