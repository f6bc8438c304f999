export { capitalize } from "./capitalize.ts";
export { cutText } from "./cutText.ts";
export { findTextFault, findUnfit, type Unfit } from "./findUnfit.ts";
export { findUnprintable } from "./findUnprintable.ts";
export { formatQuarters } from "./formatQuarters.ts";
export { joinWords } from "./joinWords.ts";
export { lowerFirst } from "./lowerFirst.ts";
export { toPlainLetters } from "./toPlainLetters.ts";
