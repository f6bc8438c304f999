import type { ServiceItem } from "../../../core/service/index.ts";
import { readMoney, toAmount } from "../../ui/money.ts";
import { readPlain } from "../../ui/readPlain.ts";
import { splitLines } from "../../ui/splitLines.ts";
import { monthOptions } from "./formatItem.ts";

const mostLines = 40;
const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-2";
const small = `${field} num w-24 text-right`;
type Whole = "firstH" | "everyH" | "firstMonths" | "everyMonths" | "labourH" | "earlyDays";
const usualSeason = { fromMonth: 10, toMonth: 11 };

interface FieldsProps {
  readonly item: ServiceItem;
  readonly onChange: (change: Partial<ServiceItem>) => void;
}

/** One item of a service pack as it is changed: when it falls due, then what is done and what it takes. */
export function ServiceItemFields(props: FieldsProps) {
  const { item, onChange } = props;
  return (
    <div className="grid gap-3 border-l-4 border-helm bg-panel px-4 py-3">
      <label className="text-sm text-soft">
        What it is called
        <input
          aria-label={`What it is called, ${item.id}`}
          maxLength={60}
          value={item.title}
          onChange={(event) => onChange({ title: readPlain(event) })}
          className={`${field} w-full max-w-md text-base font-semibold text-ink`}
        />
      </label>
      <div className="flex flex-wrap items-end gap-3">
        <FallsDue {...props} />
        {item.season === undefined ? (
          <>
            <Amount {...props} name="firstH" says="First at hours" />
            <Amount {...props} name="firstMonths" says="First after months" />
            <Amount {...props} name="everyH" says="Every hours" />
            <Amount {...props} name="everyMonths" says="Every months" />
          </>
        ) : (
          <>
            <Month {...props} name="fromMonth" says="From" />
            <Month {...props} name="toMonth" says="Until the end of" />
          </>
        )}
        <Amount {...props} name="earlyDays" says="Days it may be early" />
      </div>
      <div className="flex flex-wrap gap-3">
        <Lines {...props} name="work" says="Work" />
        <Lines {...props} name="parts" says="Parts" />
      </div>
      <div className="flex flex-wrap gap-3">
        <Amount {...props} name="labourH" says="Labour hours" />
        <label className="text-sm text-soft">
          Price
          <input
            aria-label={`Price, ${item.title}`}
            inputMode="decimal"
            className={`${small} text-base text-ink`}
            defaultValue={item.priceCents === undefined ? "" : toAmount(item.priceCents)}
            onChange={(event) => {
              const cents = readMoney(event.target.value);
              if (cents !== undefined) onChange({ priceCents: cents ?? undefined });
            }}
          />
        </label>
      </div>
    </div>
  );
}

interface AmountProps extends FieldsProps {
  readonly name: Whole;
  readonly says: string;
}

function Amount({ item, onChange, name, says }: AmountProps) {
  return (
    <label className="text-sm text-soft">
      {says}
      <input
        aria-label={`${says}, ${item.title}`}
        inputMode="decimal"
        className={`${small} text-base text-ink`}
        defaultValue={item[name] ?? ""}
        onChange={(event) => {
          const text = event.target.value.trim().replace(",", ".");
          if (text === "") onChange({ [name]: undefined });
          else if (Number.isFinite(Number(text))) onChange({ [name]: Number(text) });
        }}
      />
    </label>
  );
}

interface MonthProps extends FieldsProps {
  readonly name: "fromMonth" | "toMonth";
  readonly says: string;
}

function Month({ item, onChange, name, says }: MonthProps) {
  return (
    <label className="text-sm text-soft">
      {says}
      <select
        aria-label={`${says}, ${item.title}`}
        className={`${field} text-base text-ink`}
        value={item.season![name]}
        onChange={(event) => onChange({ season: { ...item.season!, [name]: Number(event.target.value) } })}
      >
        {monthOptions.map(([value, called]) => (
          <option key={value} value={value}>
            {called}
          </option>
        ))}
      </select>
    </label>
  );
}

interface LinesProps extends FieldsProps {
  readonly name: "work" | "parts";
  readonly says: string;
}

function Lines({ item, onChange, name, says }: LinesProps) {
  return (
    <label className="min-w-56 flex-1 text-sm text-soft">
      {says}, a line each
      <textarea
        aria-label={`${says}, ${item.title}`}
        rows={Math.max(3, (item[name] ?? []).length)}
        defaultValue={(item[name] ?? []).join("\n")}
        onChange={(event) => onChange({ [name]: splitLines(readPlain(event), 80, mostLines) })}
        className="mt-0.5 block w-full rounded-md border border-soft bg-panel px-2 py-1 text-base text-ink"
      />
    </label>
  );
}

function FallsDue({ item, onChange }: FieldsProps) {
  return (
    <label className="text-sm text-soft">
      Falls due
      <select
        aria-label={`Falls due, ${item.title}`}
        className={`${field} text-base text-ink`}
        value={item.season === undefined ? "interval" : "season"}
        onChange={(event) =>
          onChange(
            event.target.value === "season"
              ? { season: usualSeason, firstH: undefined, everyH: undefined, firstMonths: undefined }
              : { season: undefined, everyMonths: item.everyMonths ?? 12 },
          )
        }
      >
        <option value="interval">by hours and months</option>
        <option value="season">once in a season</option>
      </select>
    </label>
  );
}
