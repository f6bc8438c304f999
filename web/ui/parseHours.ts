/** Hours as people type them: `12.4`, `12,4`, ` 12 `. Null when it is not a number of hours. */
export function parseHours(text: string): number | null {
  const trimmed = text.trim().replace(",", ".");
  if (!/^\d{1,6}(\.\d{1,2})?$/.test(trimmed)) return null;
  return Number(trimmed);
}
