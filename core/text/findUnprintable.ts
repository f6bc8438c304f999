/** What the faces shipped for paper have, by code point: Latin with its accents, Greek, Cyrillic, and the usual signs. */
const printable: readonly (readonly [from: number, to: number])[] = [
  [0x0000, 0x024f],
  [0x02b0, 0x02ff],
  [0x0370, 0x03ff],
  [0x0400, 0x052f],
  [0x1e00, 0x1fff],
  [0x2000, 0x206f],
  [0x20a0, 0x20bf],
  [0x2100, 0x214f],
  [0x2190, 0x2193],
  [0x2212, 0x2215],
];

/** Letters of a text that paper cannot show, each once, in their order: "李 Ada 🚤" → "李🚤". Empty when it can show all. */
export function findUnprintable(text: string): string {
  const isShown = (letter: string) => {
    const point = letter.codePointAt(0)!;
    return printable.some(([from, to]) => point >= from && point <= to);
  };
  return [...new Set(text.normalize("NFC"))].filter((letter) => !isShown(letter)).join("");
}
