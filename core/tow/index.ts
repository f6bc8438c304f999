export { densities, type TowInput, type TowOutput, tow, towInputSchema, towOutputSchema } from "./tow.ts";
export { type Vehicle, vehicleSchema } from "./vehicle.ts";
