export { readAmount, sayWritten, writeAmount } from "./readAmount.ts";
export { headOf, isTyped, sayAmount, sayAmountIn, sayNumber, sayTyped } from "./sayAmount.ts";
export {
  fromCore,
  listUnits,
  type Quantity,
  quantities,
  shownUnit,
  signOf,
  type Typed,
  toCore,
  typedSchema,
  type UnitId,
  type UnitSystem,
  unitIds,
} from "./units.ts";
