import { Link } from "react-router";
import type { DockCall } from "../../api/index.ts";
import { storeDay } from "../ui/storeTime.ts";
import { afterComma, formatClock, formatDayAndYear } from "../ui/words.ts";

interface CallListProps {
  readonly label: string;
  readonly calls: readonly DockCall[];
  /** Of one boat, whose name is said above. */
  readonly isOfBoat?: boolean;
}

/** Calls about what fails, the last first: what it was, or the way to go on. */
export function CallList({ label, calls, isOfBoat = false }: CallListProps) {
  return (
    <ul aria-label={label} className="border-t border-ink">
      {calls.map((call) => (
        <li key={call.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1.5">
          <span className="min-w-0 flex-1 basis-72 break-words">
            <span className="block">
              <span className="text-magenta" role="img" aria-label="Does not work:">
                ✗
              </span>{" "}
              <span className="font-semibold">{call.fails}</span>
              {call.cause !== null && <>. Cause: {call.cause}</>}
            </span>
            <span className="block text-sm text-soft">
              {!isOfBoat && (
                <>
                  <Link to={`/boats/${call.boat}`} className="underline">
                    {call.boatName} {call.hull}
                  </Link>
                  {afterComma(call.buyers)},{" "}
                </>
              )}
              {formatDayAndYear(storeDay(call.at))}, {formatClock(call.at)},{" "}
              {call.by === null ? "asked on the owner's page" : `taken by ${call.by}, ${call.minutes} min`}
            </span>
          </span>
          {call.cause === null && (
            <Link
              to={`/boats/${call.boat}/finder?call=${call.id}&of=${call.delivery}`}
              aria-label={`Go on: ${call.fails}, ${call.boatName} ${call.hull}`}
              className="head inline-flex min-h-11 items-center font-semibold underline"
            >
              Go on
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}
