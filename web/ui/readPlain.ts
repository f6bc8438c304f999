/** What was typed into a field, without the marks that markup is made of. */
export const readPlain = (event: { readonly target: { readonly value: string } }): string =>
  event.target.value.replace(/[<>]/g, "");
