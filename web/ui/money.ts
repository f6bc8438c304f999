import { formatMoney as formatIn } from "../../core/region/index.ts";
import { storeRegion } from "./storeTime.ts";

/** Amounts are in hundredths of the store's currency. 31240 → `$312.40`. */
export const formatMoney = (cents: number): string => formatIn(cents, storeRegion());
/** As it stands in a field. 31240 → `312.40`. */
export const toAmount = (cents: number): string => (cents / 100).toFixed(2);

/**
 * As people type it: `312,40`, `312.4`, `$320`, `1,250.00`, `1.250,00 €` → hundredths; null for none; undefined for what is no
 * amount. A single comma or point before three digits stands for thousands, as prices are written.
 */
export function readMoney(text: string): number | null | undefined {
  const plain = text.replace(/[\p{Sc}\s]/gu, "");
  if (text.trim() === "") return null;
  const match = /^(\d{1,3}(?:[.,']\d{3})+|\d+)(?:[.,](\d{1,2}))?$/.exec(plain);
  if (match === null) return undefined;
  const [, whole, part = "0"] = match as unknown as [string, string, string | undefined];
  const amount = Number(`${whole.replace(/[.,']/g, "")}.${part}`);
  return amount <= 1_000_000 ? Math.round(amount * 100) : undefined;
}
