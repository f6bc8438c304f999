import type { Me } from "../../api/index.ts";
import { regions } from "../../core/region/index.ts";

/** Somebody who is signed in, for tests. */
export const makeMe = (change: Partial<Me> = {}): Me => ({
  id: "nessa",
  name: "Nessa",
  role: "delivery",
  store: "A yard",
  isCarried: true,
  isHeld: false,
  timeZone: "UTC",
  region: regions.us,
  allowers: ["owner"],
  hasSecond: false,
  owesSecond: false,
  isShared: false,
  open: null,
  language: "en",
  ...change,
});
