const notPlain = /[<>\p{Surrogate}\p{Bidi_Control}]|(?![\t\n\r])\p{Cc}/gu;

/**
 * A text without the marks that markup is made of, control characters, marks of direction (a name that was copied brings them along), and
 * halves of characters, which nothing can keep.
 */
export const toPlain = (text: string): string => text.replace(notPlain, "");

/** What was typed into a field, as plain text. */
export const readPlain = (event: { readonly target: { readonly value: string } }): string =>
  toPlain(event.target.value);
