import type { MeterKind } from "../../core/rig/index.ts";

const meterWords: Record<MeterKind, string> = {
  running: "Its meter counts only while the engine runs.",
  "key-on": "Its meter counts whenever the key is on, running or not. Key left on? Say so when asked.",
  "after-first-hour":
    "Its meter stays blank for the first hour. Blank: give the time run by the clock, 0.5 for half an hour.",
};

/** What to know of an engine's hour meter where its hours are read; nothing where the rig does not say. */
export function MeterNote({ meter }: { meter: MeterKind | undefined }) {
  return meter === undefined ? null : <p className="text-sm text-soft">{meterWords[meter]}</p>;
}
