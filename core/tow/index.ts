export { askTow, looseKgOf, type TowCheckSheet, type TowLoad, tongueByLever, tongueByMoving } from "./askTow.ts";
export { type TowRules, towRulesSchema } from "./rulePack.ts";
export { densities, type TowInput, type TowOutput, tow, towInputSchema, towOutputSchema } from "./tow.ts";
export { type Vehicle, vehicleSchema } from "./vehicle.ts";
