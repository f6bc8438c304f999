import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { formatDay, formatTimeOf } from "../../ui/words.ts";

interface BoatRowProps {
  readonly when: string;
  readonly line: Pick<Today["misfits"][number], "boat" | "boatName" | "serial" | "buyers">;
  /** What of the boat the row leads to; its page where left out. */
  readonly to?: string;
  readonly children: ReactNode;
}

/** When, which boat, whose, and what there is to say of it. */
export function BoatRow({ when, line: { boat, boatName, serial, buyers }, to = "", children }: BoatRowProps) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
      <span className="num w-36 font-semibold">{when}</span>
      <Link className="inline-flex min-h-11 items-center underline" to={`/boats/${boat}${to}`}>
        {boatName} <span className="ml-1 text-soft">#{serial}</span>
      </Link>
      <span className="min-w-0 flex-1 basis-40 break-words text-soft">{buyers}</span>
      {children}
    </li>
  );
}

/** Boats of the coming week by when their buyers come: what is open before them, what stops them. */
export function Coming({ coming, date }: Pick<Today, "coming" | "date">) {
  return (
    <section aria-labelledby="coming" className="mt-7">
      <h2 id="coming" className="text-lg font-bold">
        To be ready, the next seven days
      </h2>
      {coming.length === 0 ? (
        <p className="border-t border-ink py-3 text-soft">No handover in the next seven days.</p>
      ) : (
        <ul className="border-t border-ink">
          {coming.map(({ delivery, readyOpen, readyOf, stopping, ...line }) => (
            <BoatRow
              key={delivery}
              line={line}
              when={`${line.date === date ? "Today" : formatDay(line.date)}, ${formatTimeOf(line.time)}`}
            >
              <span className="min-w-0 basis-64">
                {stopping[0] !== undefined ? (
                  <span className="text-magenta">▲ {stopping[0]}</span>
                ) : readyOpen[0] === undefined ? (
                  "● made ready"
                ) : (
                  <span className="text-amber">
                    ◷ {readyOpen.length} of {readyOf} open: {readyOpen[0]}
                  </span>
                )}
              </span>
              <Link
                className="head inline-flex min-h-11 items-center font-semibold underline"
                to={`/deliveries/${delivery}/ready`}
                aria-label={`Make ready: ${line.boatName} #${line.serial}`}
              >
                Make ready
              </Link>
            </BoatRow>
          ))}
        </ul>
      )}
    </section>
  );
}
