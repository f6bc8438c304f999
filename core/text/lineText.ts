import { z } from "zod";
import { plainTextOf } from "./plainText.ts";

const lineEnds = /[\t\r\n\u000b\u000c\u0085\u2028\u2029]/;
const directions = /\p{Bidi_Control}/u;

/** What is wrong with a name, or null: it has more than one line, or marks that turn what stands after it around. */
export function findLineFault(text: string): string | null {
  if (lineEnds.test(text)) return "must be one line";
  return directions.test(text) ? "must not hold marks of direction" : null;
}

/** A name as it was meant: line ends and tabs are one space, marks of direction go. */
const cleanLine = (text: string): string =>
  text.replace(new RegExp(`${lineEnds.source}+`, "g"), " ").replace(new RegExp(directions.source, "gu"), "");

/** Text that something or somebody is known by, of at most `most` characters: plain, and cleaned to one line as it comes in. */
export const lineText = (most: number) => plainTextOf(z.string().overwrite(cleanLine), most);
