import { Radio, RadioGroup } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import type { Delivery } from "../../../api/index.ts";
import type { StyleId } from "../../../core/route/index.ts";
import { plansQuery } from "../../app/queries.ts";
import { ErrorNotice, Waiting } from "../../ui/Notice.tsx";

interface StylesProps {
  readonly delivery: Delivery;
  readonly canChoose: boolean;
  readonly isBusy: boolean;
  readonly onChoose: (style: StyleId) => void;
}

/** The schools side by side: moves, minutes on foot, minutes in all, and when the first must is done. */
export function Styles({ delivery, canChoose, isBusy, onChoose }: StylesProps) {
  const plans = useQuery(plansQuery(delivery.id));
  if (plans.data === undefined)
    return plans.error === null ? <Waiting what="the route styles" /> : <ErrorNotice error={plans.error} />;
  const chosen = plans.data.plans.find(({ style }) => style === delivery.planOptions.style);
  return (
    <section aria-labelledby="styles">
      <h2 id="styles" className="text-lg font-bold">
        Route style
      </h2>
      <div className="head mt-1 grid grid-cols-[1fr_52px_56px_68px_60px] border-b border-ink pb-1 text-[0.8125rem] font-semibold text-soft [font-stretch:85%]">
        <span>Style</span>
        <span className="text-right">Moves</span>
        <span className="text-right">On foot</span>
        <span className="text-right">In all</span>
        <span className="text-right" title="Minutes into the walk at which the first must is done">
          1st must
        </span>
      </div>
      <RadioGroup
        value={delivery.planOptions.style}
        onChange={onChoose}
        disabled={!canChoose || isBusy}
        aria-labelledby="styles"
      >
        {plans.data.plans.map(({ style, name, line, moves, moveMin, totalMin, firstMust }) => (
          <Radio
            key={style}
            value={style}
            aria-label={`${name}: ${moves} moves, ${Math.round(totalMin)} minutes, first must after ${Math.round(firstMust?.atMin ?? 0)}`}
            className="grid min-h-11 cursor-pointer grid-cols-[1fr_52px_56px_68px_60px] items-center border-b border-rule data-checked:bg-shoal data-disabled:cursor-default"
            title={line}
          >
            {({ checked }) => (
              <>
                <span className="flex items-center gap-2 px-1">
                  <span
                    aria-hidden
                    className={`size-3.5 rounded-full border border-ink ${checked ? "bg-ink" : "bg-panel"}`}
                  />
                  <span className={checked ? "font-bold" : ""}>{name}</span>
                </span>
                <Figure value={moves} />
                <Figure value={moveMin} unit="min" />
                <Figure value={totalMin} unit="min" />
                <Figure value={firstMust?.atMin ?? 0} unit="min" />
              </>
            )}
          </Radio>
        ))}
      </RadioGroup>
      <p className="mt-2 text-sm text-soft">
        {chosen?.line}
        {chosen?.firstMust != null && ` First must: ${chosen.firstMust.title}.`}
      </p>
    </section>
  );
}

function Figure({ value, unit }: { value: number; unit?: string }) {
  return (
    <span className="num pr-1 text-right">
      {Math.round(value)}
      {unit !== undefined && <span className="text-soft"> {unit}</span>}
    </span>
  );
}
