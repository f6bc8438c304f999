export { drawCourse } from "./drawCourse.ts";
export { type DeckBoat, type DeckDrawing, drawDeck } from "./drawDeck.ts";
export { drawFamily } from "./drawFamily.ts";
export { isWithinHull } from "./hull.ts";
export { boundsOf, curvePath, type PaperBox, type Shape, type ShapeRole, shapeRoles } from "./shape.ts";
