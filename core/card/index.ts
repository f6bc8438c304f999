export { type CardText, cardTables, cardTextSchema } from "./cardText.ts";
export { type Card, type CardBoat, createCards } from "./createCards.ts";
export type { CardBlock, PlanMark } from "./createTable.ts";
