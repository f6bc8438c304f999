export { densities, type TowInput, type TowOutput, tow, towInputSchema, towOutputSchema } from "./tow.ts";
