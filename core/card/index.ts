export type { CardBoat } from "./cardBoat.ts";
export { type CardText, cardTables, cardTextSchema } from "./cardText.ts";
export { type Card, createCards } from "./createCards.ts";
export type { CardBlock, PlanMark } from "./createTable.ts";
export { listCardTexts } from "./listCardTexts.ts";
