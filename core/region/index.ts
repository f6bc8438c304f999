export { type DayStyle, formatDate, formatMoney } from "./formatRegion.ts";
export { type Region, regionSchema, regions, unitSystems } from "./region.ts";
export { type Idiom, spellAll, spellText } from "./spellText.ts";
