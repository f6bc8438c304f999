import { spellText } from "../../core/region/index.ts";
import { headOf as headIn, type Quantity, sayAmount, type Typed } from "../../core/units/index.ts";
import { storeRegion } from "./storeTime.ts";

/** An amount in the store's units. (344.7, "pressure") → "50 psi". */
export const say = (amount: number, quantity: Quantity, typed?: Typed | null): string =>
  sayAmount(amount, quantity, storeRegion().units, typed ?? undefined);

/** A column's head with the unit of what stands below it. */
export const headOf = (name: string, quantity: Quantity): string => headIn(name, quantity, storeRegion().units);

/** A text of ours in the store's spelling. ("Tire pressure") → "Tyre pressure" in a British store. */
export const spell = (text: string): string => spellText(text, storeRegion().spelling);
