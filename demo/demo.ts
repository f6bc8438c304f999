import type { Demo } from "../server/createServices.ts";
import { demoAccounts, demoCost } from "./accounts.ts";
import { carrierStandIn } from "./carrierStandIn.ts";
import { createGatewayStandIn } from "./gatewayStandIn.ts";
import { windStandIn } from "./windStandIn.ts";

/** What the demo has in the place of services outside: none of it is in a real store. */
export const demo: Demo = {
  accounts: demoAccounts,
  passwordCost: demoCost,
  carrier: carrierStandIn,
  gateway: createGatewayStandIn(),
  forecaster: windStandIn,
};
