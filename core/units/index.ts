export { readAmount, sayWritten, writeAmount } from "./readAmount.ts";
export { headOf, isTyped, sayAmount, sayAmountIn, sayNumber, sayTyped } from "./sayAmount.ts";
export { typedSchema } from "./typedSchema.ts";
export {
  fromCore,
  listUnits,
  type Quantity,
  quantities,
  shownUnit,
  signOf,
  type Typed,
  toCore,
  type UnitId,
  type UnitSystem,
  unitIds,
} from "./units.ts";
