/** Lower case for use inside a sentence, but not for names such as VHF or V-berth. */
export const lowerFirst = (text: string): string =>
  /^[A-Z](?=[a-z ])/.test(text) ? text[0]!.toLowerCase() + text.slice(1) : text;
