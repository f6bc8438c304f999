import type { Carrier } from "../server/messages.ts";

/** The demo's carrier: what it was given is delivered a little later, and fails where no number is known. */
export const carrierStandIn: Carrier = { settle: (hasPhone) => (hasPhone ? "delivered" : "failed") };
