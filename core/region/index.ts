export { type Region, regionSchema, regions, unitSystems } from "./region.ts";
