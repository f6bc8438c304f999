export {
  type BreakInPack,
  type BreakInStanding,
  breakInPackSchema,
  breakInStandingSchema,
  findBreakInStanding,
} from "./breakIn.ts";
