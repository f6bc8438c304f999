/** How many walks' worth of trust the shipped figure has. */
const shippedWeight = 5;
/** A time outside these shares of the shipped one counts as the nearest of them: a phone rang, a mark came late. */
const least = 0.25;
const most = 3;

/**
 * What a topic takes in this store: the shipped minutes and the recorded ones averaged, the shipped counting as five
 * records, each record held between a quarter of the shipped figure and three times it. Seconds in, minutes out.
 *
 * @example shipped 2 min, five records of 240 s → 3 min.
 */
export function learnMinutes(shippedMin: number, recordedS: readonly number[]): number {
  let sum = shippedMin * shippedWeight;
  for (const seconds of recordedS) sum += Math.min(shippedMin * most, Math.max(shippedMin * least, seconds / 60));
  return sum / (shippedWeight + recordedS.length);
}
