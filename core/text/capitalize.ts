/** The text with its first letter as a capital: "the helm" → "The helm". */
export const capitalize = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
