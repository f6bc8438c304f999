export {
  type GearInput,
  type GearOutput,
  type GearRule,
  gear,
  gearInputSchema,
  gearOutputSchema,
  gearRuleSchema,
} from "./gear.ts";
