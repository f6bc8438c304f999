export { type DeckDrawing, drawDeck, drawHullLine, isWithinHull } from "./drawDeck.ts";
export { curvePath, type Shape, type ShapeRole, shapeRoles } from "./shape.ts";
