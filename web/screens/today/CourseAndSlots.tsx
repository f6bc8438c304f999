import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { formatTime } from "../../ui/words.ts";
import { BoatRow } from "./Coming.tsx";

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
          {slots.map(({ id, startMin, durationMin, title, ...line }) => (
            <BoatRow key={id} line={line} when={`${formatTime(startMin)} to ${formatTime(startMin + durationMin)}`}>
              {title}
            </BoatRow>
          ))}
        </ul>
      )}
      <Link to="/aftercare" className="head inline-flex min-h-11 items-center font-semibold underline">
        Who to call
      </Link>
    </section>
  );
}

type Course = NonNullable<Today["course"]>;

const counts: readonly (readonly [
  Exclude<keyof Course, "backup" | "isHeld" | "isDamaged">,
  one: string,
  many: string,
  to: string,
])[] = [
  ["stopped", "handover is stopped by a snag", "handovers are stopped by snags", "/aftercare/owed"],
  ["latePromises", "promise is late", "promises are late", "/aftercare/owed"],
  ["openMusts", "must-do topic is still to be done", "must-do topics are still to be done", "/aftercare/owed"],
  ["unowned", "thing owed is assigned to nobody", "things owed are assigned to nobody", "/aftercare/owed"],
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
        {wrong.length === 0 && course.backup === "good" && !course.isHeld && !course.isDamaged
          ? "Everything is on course"
          : "Off course"}
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
      {course.isDamaged && (
        <p className="border-l-4 border-magenta pl-3 text-magenta">
          ▲ The store's file is damaged. Make no backup over an older one: stop the server and put back the last good
          backup.
        </p>
      )}
      {course.isHeld && (
        <p>
          <Link to="/store" className="inline-flex min-h-11 items-center underline">
            The store was put back, or has lost something: what it sends by itself waits for you
          </Link>
        </p>
      )}
      {course.backup !== "good" && (
        <p>
          <Link to="/store" className="inline-flex min-h-11 items-center underline">
            {course.backup === "none" ? "There is no backup of this store" : "The last backup is more than a night old"}
          </Link>
        </p>
      )}
    </section>
  );
}
