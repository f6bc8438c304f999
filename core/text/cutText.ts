/**
 * The text cut to at most `most` UTF-16 units, never through a character.
 *
 * @example ("ab😀", 3) → "ab"
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  const last = text.charCodeAt(most - 1);
  const splitsPair = last >= 0xd800 && last <= 0xdbff;
  return text.slice(0, splitsPair ? most - 1 : most);
}
