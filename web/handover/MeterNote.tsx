import type { Tell } from "../../core/language/index.ts";
import type { MeterKind } from "../../core/rig/index.ts";
import { useTell } from "../ui/tell.ts";

const sayMeter: Record<MeterKind, (tell: Tell) => string> = {
  running: (tell) => tell("Its meter counts only while the engine runs."),
  "key-on": (tell) => tell("Its meter counts whenever the key is on, running or not. Key left on? Say so when asked."),
  "after-first-hour": (tell) =>
    tell("Its meter stays blank for the first hour. Blank: give the time run by the clock, 0.5 for half an hour."),
};

/** What to know of an engine's hour meter where its hours are read; nothing where the rig does not say. */
export function MeterNote({ meter }: { meter: MeterKind | undefined }) {
  const tell = useTell();
  return meter === undefined ? null : <p className="text-sm text-soft">{sayMeter[meter](tell)}</p>;
}
