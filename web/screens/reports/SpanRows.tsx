import { Fragment, type ReactNode, useState } from "react";
import { Button } from "../../ui/Button.tsx";
import type { Estimate } from "./estimates.ts";

export interface SpanRow {
  readonly key: string;
  readonly name: ReactNode;
  readonly now: Estimate | null;
  /** Where the plan or the year before stands on the same scale. */
  readonly mark?: number | null;
  readonly says: string;
  /** More about it, below. */
  readonly more?: ReactNode;
}

interface SpanRowsProps {
  readonly rows: readonly SpanRow[];
  /** The right end of the scale. */
  readonly most: number;
  /** What the tick on the scale is. */
  readonly markSays?: string;
  readonly label: string;
}

const shown = 10;

/** Figures on one scale, each with its span as a bar, the figure itself as a line in it; ten at first. */
export function SpanRows({ rows, most, markSays, label }: SpanRowsProps) {
  const [isAll, setAll] = useState(false);
  if (rows.length === 0) return null;
  const at = (value: number) => `${Math.min(100, Math.max(0, (value / most) * 100))}%`;
  return (
    <>
      {markSays !== undefined && (
        <p className="mt-1 flex items-center gap-2 text-sm text-soft">
          <span aria-hidden className="inline-block h-4 w-0.5 bg-magenta" /> {markSays}
        </p>
      )}
      <ul aria-label={label} className="mt-2">
        {(isAll ? rows : rows.slice(0, shown)).map(({ key, name, now, mark, says, more }) => (
          <li
            key={key}
            className="grid items-center gap-x-4 border-b border-rule py-1.5 md:grid-cols-[minmax(0,1fr)_220px_230px]"
          >
            <span className="break-words">{name}</span>
            <span aria-hidden className="relative block h-5 bg-shoal max-md:my-1">
              {now !== null && (
                <Fragment>
                  <span
                    className="absolute inset-y-1 bg-deep"
                    style={{ left: at(now.low), width: `calc(${at(now.high)} - ${at(now.low)})` }}
                  />
                  <span className="absolute inset-y-0 w-1 -translate-x-1/2 bg-ink" style={{ left: at(now.value) }} />
                </Fragment>
              )}
              {mark != null && (
                <span className="absolute -inset-y-1 w-0.5 -translate-x-1/2 bg-magenta" style={{ left: at(mark) }} />
              )}
            </span>
            <span className="num md:text-right">{says}</span>
            {more !== undefined && <span className="text-sm text-soft md:col-span-3">{more}</span>}
          </li>
        ))}
      </ul>
      {rows.length > shown && (
        <Button look="quiet" className="mt-1 px-0!" onClick={() => setAll(!isAll)}>
          {isAll ? "Show ten" : `Show all ${rows.length}`}
        </Button>
      )}
    </>
  );
}
