import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { obstacleWords, unseenWords } from "../../handover/closeWords.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDay } from "../../ui/words.ts";
import { BoatRow } from "./Coming.tsx";

/** What was closed and is not sealed before somebody acts, and why. */
export function Waiting({ waiting }: Pick<Today, "waiting">) {
  return (
    <section aria-labelledby="waiting" className="mt-4 border-l-[7px] border-amber pl-4">
      <h2 id="waiting" className="text-lg font-bold">
        Closed, not sealed
      </h2>
      <ul className="border-t border-ink">
        {waiting.map(({ delivery, since, unseen, obstacles, ...line }) => (
          <BoatRow key={delivery} line={line} when={`${formatDay(storeDay(since))}, ${formatClock(since)}`}>
            <span className="min-w-0 flex-2 basis-96 break-words text-amber">
              {unseen.length > 0 && <span className="block">◷ Unknown to whoever signed:</span>}
              {unseen.map(({ why, text }) => (
                <span key={text} className="block pl-5">
                  {unseenWords[why](text)}
                </span>
              ))}
              {obstacles.map(({ code, count }) => (
                <span key={code} className="block">
                  ◷ {obstacleWords[code](count)}
                </span>
              ))}
            </span>
            <Link
              className="head inline-flex min-h-11 items-center font-semibold underline"
              to={`/deliveries/${delivery}/close`}
              aria-label={`Decide on ${line.boatName} #${line.serial}`}
            >
              Decide
            </Link>
          </BoatRow>
        ))}
      </ul>
    </section>
  );
}
