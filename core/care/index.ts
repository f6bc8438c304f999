export { type BoatFacts, describeBoat } from "./boatFacts.ts";
export { type BoatSort, type BoatStage, boatSorts, boatStages, findStage, soonBy } from "./boatStage.ts";
export { describeCare, describePlan } from "./describeCare.ts";
export { readEngineStatus, seasonOf } from "./engineStatus.ts";
export { fuelOf, limitsOf, sumTanks } from "./fuel.ts";
export { type GearDate, goesOutOfDate, listGearDates, registration } from "./gearDates.ts";
export { type CareQuestion, type CareRig, findPack, type Packs, readingsOf } from "./question.ts";
export { boatScope, listScopes } from "./scopes.ts";
