/** A time of day as files and fields hold it, of whole minutes after midnight: 570 → `09:30`. Hours may be past 24. */
export const toClock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

/** Minutes after midnight of such a time: `09:30` → 570. */
export function fromClock(clock: string): number {
  const [hours, minutes] = clock.split(":").map(Number) as [number, number];
  return hours * 60 + minutes;
}
