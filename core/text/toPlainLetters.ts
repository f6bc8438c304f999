const isPlain = /^[\0-\x7f]*$/;

/** Small letters without accents, as names are looked for: "Émile" → "emile". Letters that are their own, such as ø and ł, stay. */
export function toPlainLetters(text: string): string {
  if (isPlain.test(text)) return text.toLowerCase();
  return text
    .normalize("NFD")
    .replace(/\p{Diacritic}/gu, "")
    .toLowerCase();
}
