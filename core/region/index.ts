export { type DayStyle, formatDate, formatMoney, formatTime } from "./formatRegion.ts";
export { completeRegion, regions } from "./region.ts";
export { type Region, regionSchema } from "./regionSchema.ts";
export { type Idiom, spellAll, spellText, tellLabel, tellText } from "./spellText.ts";
export { unitSystems } from "./unitSystems.ts";
