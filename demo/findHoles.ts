/** What a thing or a person is called by, in every answer. */
const nameKeys: ReadonlySet<string> = new Set([
  ...["name", "boatName", "title", "label", "serial", "hull", "recipient", "buyers", "model", "maker"],
]);
/** Whatever nobody would write: a comma with nothing before or behind it, a value that is none. */
const holes = [/(^|[\s(]),/, /, ?(,|\.|;|$)/, /\bundefined\b/, /\bnull\b/, /\bNaN\b/, /\[object/, /\(\)/, /[“"]{2}/];
const idPattern = /^([df]-?[a-z]\d{3}|f\d{3}|d-f\d{3}|[0-9a-hjkmnp-tv-z]{26}|[0-9A-HJKMNP-TV-Z]{26})$/;

/** Where words of a text are missing, each with its surroundings. */
export const findInText = (text: string): string[] =>
  holes.flatMap((hole) => {
    const found = hole.exec(text);
    return found === null ? [] : [`${hole} in "${text.slice(Math.max(0, found.index - 40), found.index + 40)}"`];
  });

/**
 * For tests: what in an answer is empty, or an id, where a name belongs, by its path. `isSold`: a boat that nobody has bought yet
 * need not name anybody.
 */
export function findHoles(value: unknown, isSold: (boat: string) => boolean, path = ""): string[] {
  if (Array.isArray(value)) return value.flatMap((each, i) => findHoles(each, isSold, `${path}[${i}]`));
  if (value === null || typeof value !== "object") return [];
  const row = value as Record<string, unknown>;
  return Object.entries(row).flatMap(([key, of]) => {
    const here = `${path}.${key}`;
    // What a contact form is filled with: nobody needs to have said a name yet.
    if (key === "contact") return [];
    if (typeof of !== "string") return findHoles(of, isSold, here);
    if (!nameKeys.has(key)) return [];
    const boat = row.boat ?? row.id;
    if (of.trim() === "")
      return key === "buyers" && typeof boat === "string" && !isSold(boat) ? [] : [`${here} is empty`];
    if (idPattern.test(of)) return [`${here} is an id: ${of}`];
    return findInText(of).map((hole) => `${here}: ${hole}`);
  });
}
