export {
  askTow,
  listMisfits,
  looseKgOf,
  type TowCheckSheet,
  type TowLoad,
  tongueByLever,
  tongueByMoving,
  usualLoad,
} from "./askTow.ts";
export { type TowRules, towRulesSchema } from "./rulePack.ts";
export { densities, type TowInput, type TowOutput, tow, towInputSchema, towOutputSchema } from "./tow.ts";
export { towWords } from "./towWords.ts";
export { type Vehicle, vehicleSchema } from "./vehicle.ts";
