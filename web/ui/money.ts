/** Amounts are in hundredths of the store's currency, which is not named. 31240 → `312.40`. */
export const formatMoney = (cents: number): string => (cents / 100).toFixed(2);

/** `312,40` or `312.4` → 31240; null for none; undefined for what is no amount. */
export function readMoney(text: string): number | null | undefined {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return null;
  const amount = Number(plain);
  return Number.isFinite(amount) && amount >= 0 && amount <= 1_000_000 ? Math.round(amount * 100) : undefined;
}
