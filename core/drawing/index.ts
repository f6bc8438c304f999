export { drawCourse } from "./drawCourse.ts";
export { type DeckBoat, type DeckDrawing, drawDeck, drawFamily, isWithinHull } from "./drawDeck.ts";
export { boundsOf, curvePath, type PaperBox, type Shape, type ShapeRole, shapeRoles } from "./shape.ts";
