import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { formatDay, formatMinuteOfDay } from "../../ui/words.ts";

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
          {coming.map(({ delivery, boat, boatName, serial, buyers, readyOpen, readyOf, stopping, ...at }) => (
            <li key={delivery} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
              <span className="num w-36 font-semibold">
                {at.date === date ? "Today" : formatDay(at.date)}, {at.time}
              </span>
              <Link className="inline-flex min-h-11 items-center underline" to={`/boats/${boat}`}>
                {boatName} <span className="ml-1 text-soft">#{serial}</span>
              </Link>
              <span className="min-w-0 flex-1 basis-40 break-words text-soft">{buyers}</span>
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
                aria-label={`Make ready: ${boatName} #${serial}`}
              >
                Make ready
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Who comes to the workshop today. */
export function Slots({ slots }: Pick<Today, "slots">) {
  return (
    <section aria-labelledby="slots" className="mt-7">
      <h2 id="slots" className="text-lg font-bold">
        In the workshop today
      </h2>
      {slots.length === 0 ? (
        <p className="border-t border-ink py-3 text-soft">
          Nobody is booked today.{" "}
          <Link className="underline" to="/aftercare/workshop">
            The week
          </Link>{" "}
          shows who comes when.
        </p>
      ) : (
        <ul className="border-t border-ink">
          {slots.map(({ id, startMin, durationMin, boat, boatName, serial, buyers, title }) => (
            <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
              <span className="num w-36 font-semibold">
                {formatMinuteOfDay(startMin)} to {formatMinuteOfDay(startMin + durationMin)}
              </span>
              <Link className="inline-flex min-h-11 items-center underline" to={`/boats/${boat}`}>
                {boatName} <span className="ml-1 text-soft">#{serial}</span>
              </Link>
              <span className="min-w-0 break-words text-soft">{buyers}</span>
              <span>{title}</span>
            </li>
          ))}
        </ul>
      )}
      <Link to="/aftercare" className="head inline-flex min-h-11 items-center font-semibold underline">
        Whom to ring
      </Link>
    </section>
  );
}

type Course = NonNullable<Today["course"]>;

const counts: readonly (readonly [keyof Course, one: string, many: string, to: string])[] = [
  ["stopped", "handover is stopped by a snag", "handovers are stopped by snags", "/aftercare/owed"],
  ["latePromises", "promise is late", "promises are late", "/aftercare/owed"],
  ["overdueBoats", "service is overdue", "services are overdue", "/aftercare"],
  ["failedMessages", "message did not arrive", "messages did not arrive", "/messages"],
  ["failedJobs", "thing the server does by itself failed", "things the server does by itself failed", "/aftercare"],
];

/** What is not as it should be, for whoever answers for the store. */
export function OffCourse({ course }: { course: Course }) {
  const wrong = counts.filter(([key]) => course[key] > 0);
  return (
    <section aria-labelledby="course" className="mt-4 border-l-[7px] border-ink pl-4">
      <h2 id="course" className="text-lg font-bold">
        {wrong.length === 0 ? "Everything is on course" : "Off course"}
      </h2>
      {wrong.length > 0 && (
        <ul className="flex flex-wrap gap-x-6">
          {wrong.map(([key, one, many, to]) => (
            <li key={key}>
              <Link to={to} className="inline-flex min-h-11 items-center underline">
                <strong className="num mr-1.5 text-magenta">{course[key]}</strong> {course[key] === 1 ? one : many}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
