import type { ServiceItem } from "../../../core/service/index.ts";
import { formatMoney } from "../../ui/money.ts";
import { monthNames } from "../../ui/words.ts";

export const monthOptions = monthNames.map((name, i) => [i + 1, name] as const);

/** Hours and months of one interval: `100 h or 12 months`; null for neither. */
function formatInterval(hours: number | undefined, months: number | undefined): string | null {
  const parts = [...(hours === undefined ? [] : [`${hours} h`]), ...(months === undefined ? [] : [`${months} months`])];
  return parts.length === 0 ? null : parts.join(" or ");
}

/** When a service item falls due, in a sentence: `First at 20 h or 12 months, then every 100 h or 12 months, whichever comes first.` */
export function formatWhenDue(item: ServiceItem): string {
  const { season, firstH, firstMonths, everyH, everyMonths } = item;
  if (season !== undefined)
    return `Once a year, ${monthNames[season.fromMonth - 1]} to ${monthNames[season.toMonth - 1]}, whatever the hours.`;
  const first = formatInterval(firstH, firstMonths);
  const every = formatInterval(everyH, everyMonths);
  if (first === null && every === null) return "Never falls due yet.";
  const both = [firstH, everyH].some((h) => h !== undefined) && [firstMonths, everyMonths].some((m) => m !== undefined);
  const said =
    first === null || first === every
      ? `Every ${every ?? first}`
      : every === null
        ? `Once, at ${first}`
        : `First at ${first}, then every ${every}`;
  return `${said}${both ? ", whichever comes first" : ""}.`;
}

/** What an item takes: labour, price, how early it may be done. */
export function formatEffort({ labourH, priceCents, earlyDays }: ServiceItem): string {
  return [
    labourH === undefined ? null : `${labourH} h of work`,
    priceCents === undefined ? null : formatMoney(priceCents),
    earlyDays === undefined ? null : `up to ${earlyDays} days early`,
  ]
    .filter((part) => part !== null)
    .join(", ");
}
