import type { Delivery } from "../../../api/index.ts";
import { type Entry, judgeTime } from "../../../core/walk/index.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";

/** When an entry came, where the time it bears does not say it: it waited without signal, or the clock of its device was off. */
export function sayReceipt({ receipts }: Delivery, entry: Entry): string | null {
  const receipt = receipts[entry.id];
  if (receipt?.receivedAt == null) return null;
  const judged = judgeTime(entry, receipt);
  if (judged === "fits") return null;
  const day = storeDay(receipt.receivedAt);
  const isSameDay = day === storeDay(entry.at);
  const came = `received ${isSameDay ? "" : `${formatDayAndYear(day)}, `}${formatClock(receipt.receivedAt)}`;
  return judged === "offline" ? `${came}, without signal until then` : `the device's own time; ${came}`;
}
