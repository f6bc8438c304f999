import { createTell, type Tell } from "../language/index.ts";

/** What stands in the place of a name, or of an entry's words, that were struck. */
export const struckName = "(struck)";

/** Of a record of the first format, whose seal is over the names themselves, once some were struck. */
export const struckFirstWords =
  "It was sealed in the old format, over the names themselves: its seal can no longer be recomputed. What stays fits what was sealed with it.";

/** Who is meant where all names were struck. */
const unnamedBuyer = "the buyer";
/** Stands where a boat was sold and nobody wrote down to whom. */
export const unnamedOwner = "owner not named";

/** The buyers of a handover in one line, for screens and messages; nobody is called by a name that was struck. */
export function formatBuyers(buyers: readonly { readonly name: string }[]): string {
  const names = buyers.flatMap(({ name }) => (name === struckName ? [] : [name]));
  return names.length === 0 && buyers.length > 0 ? unnamedBuyer : names.join(" and ");
}

/**
 * How people are called in a message: `Ilse Varnholt and Piet Varnholt` → `Ilse and Piet`. Where nobody is named, `there`, for
 * "Hello there".
 */
export const formatFirstNames = (buyers: string): string =>
  ["", unnamedBuyer, unnamedOwner].includes(buyers)
    ? "there"
    : buyers
        .split(" and ")
        .map((name) => name.split(" ")[0])
        .join(" and ");

interface Struck {
  readonly people: number;
  readonly entries: readonly string[];
  readonly photos: number;
}

/** What was struck from a sealed handover, in words: "Struck: 1 name and the 2 entries under it, 3 photos." */
export function formatStrike({ people, entries: { length }, photos }: Struck, tell: Tell = createTell(null)): string {
  const named = people === 1 ? tell("1 name") : tell("{0} names", people);
  const sayUnder = () => {
    if (length === 0) return named;
    if (people === 1)
      return length === 1
        ? tell("{0} and the entry under it", named)
        : tell("{0} and the {1} entries under it", named, length);
    return length === 1
      ? tell("{0} and the entry under them", named)
      : tell("{0} and the {1} entries under them", named, length);
  };
  const pictures = photos === 0 ? [] : [photos === 1 ? tell("1 photo") : tell("{0} photos", photos)];
  return tell("Struck: {0}.", [...(people === 0 ? [] : [sayUnder()]), ...pictures].join(", "));
}
