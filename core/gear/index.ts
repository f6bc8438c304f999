export {
  type GearInput,
  type GearOutput,
  type GearRule,
  gear,
  gearInputSchema,
  gearOutputSchema,
  gearRuleSchema,
} from "./gear.ts";
export { type GearPack, gearPackSchema, type PackRule, packRuleSchema } from "./gearPack.ts";
