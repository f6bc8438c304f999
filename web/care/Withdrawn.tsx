import type { Withdrawal } from "../../api/index.ts";
import { say } from "../ui/amounts.ts";
import { storeDay } from "../ui/storeTime.ts";
import { formatDayAndYear } from "../ui/words.ts";

interface WithdrawnProps {
  readonly withdrawn: readonly Withdrawal[];
  /** Engines and service items by their ids. */
  readonly labelOf: ReadonlyMap<string, string>;
}

const kindWords: Record<Withdrawal["kind"], string> = {
  reading: "Reading",
  run: "Run",
  fill: "Fuel",
  service: "Service",
};

/** What was entered wrong and no longer counts, with who said so and why. */
export function Withdrawn({ withdrawn, labelOf }: WithdrawnProps) {
  if (withdrawn.length === 0) return null;
  return (
    <details className="mt-3 max-w-3xl">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        Entered wrong: {withdrawn.length}
      </summary>
      <ul className="border-t border-ink">
        {withdrawn.map((each) => (
          <li key={`${each.kind} ${each.id}`} className="border-b border-rule py-1.5">
            <s>{formatEntered(each, labelOf)}</s> {each.isCorrected ? "put right" : "taken out"}:{" "}
            <span className="break-words">{each.reason}</span>{" "}
            <span className="text-soft">
              {each.by}, {formatDayAndYear(storeDay(each.at))}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}

function formatEntered({ kind, engine, date, amount, what }: Withdrawal, labelOf: WithdrawnProps["labelOf"]): string {
  const named = what === null || what === "" ? "" : ` ${labelOf.get(what) ?? what}`;
  const number =
    amount === null
      ? ""
      : `, ${kind === "fill" ? say(amount, "volume") : `${amount.toLocaleString("en-GB", { maximumFractionDigits: 1 })} h`}`;
  const of = engine === null ? "" : `, ${labelOf.get(engine) ?? "the boat"}`;
  return `${kindWords[kind]}${named}${number}${of}, ${formatDayAndYear(date)}`;
}
