/** Names in a sentence: "Port", "Port and House", "Port, Starboard and House". */
export const joinWords = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
