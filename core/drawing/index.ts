export { drawCourse } from "./drawCourse.ts";
export { type DeckBoat, type DeckDrawing, drawDeck, drawFamily, isWithinHull } from "./drawDeck.ts";
export { curvePath, type Shape, type ShapeRole, shapeRoles } from "./shape.ts";
