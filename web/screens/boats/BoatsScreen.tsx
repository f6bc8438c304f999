import { useState } from "react";
import { Link } from "react-router";
import { type BoatList, useFoundBoats } from "../../app/useFoundBoats.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { linkLook } from "../../ui/Button.tsx";
import { formatDue } from "../../ui/DueDay.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

/** Every boat of the store: the next handover first, then the next service. */
export function BoatsScreen() {
  const [text, setText] = useState("");
  const { all, list, find, error } = useFoundBoats(text);
  return (
    <Fetched query={all} what="the boats">
      {({ boatsInAll }) => (
        <main className="px-4 pt-5 pb-10 md:px-8">
          <Head boatsInAll={boatsInAll} />
          {boatsInAll > 0 && (
            <input
              type="search"
              aria-label="Find in this list"
              placeholder="Find by name, hull number or buyer"
              className={`${fieldLook} mt-3 max-w-md`}
              maxLength={100}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          )}
          {error !== null && <ErrorNotice error={error} />}
          {list !== undefined && <BoatTable list={list} find={find} />}
        </main>
      )}
    </Fetched>
  );
}

/** What stands in the table and what does not. */
function saysOf({ boats, boatsFound }: BoatList, find: string): string | null {
  if (boatsFound === 0) return `No boat and no buyer has "${find}" in it.`;
  if (boatsFound === boats.length) return null;
  const count = boatsFound.toLocaleString("en-GB");
  return `The first ${boats.length} of ${count} stand here; find the others by name, hull number or buyer.`;
}

function Head({ boatsInAll }: { boatsInAll: number }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <h1 className="mr-auto text-2xl font-bold">
        Boats <span className="num text-base font-normal text-soft">{boatsInAll.toLocaleString("en-GB")}</span>
      </h1>
      <Link to="/bundles" className={linkLook("plain")}>
        Import a handover
      </Link>
      <Link to="/boats/stock" className={linkLook("plain")}>
        Read a stock list
      </Link>
      <Link to="/boats/new" className={linkLook("primary")}>
        New boat
      </Link>
    </div>
  );
}

function BoatTable({ list, find }: { list: BoatList; find: string }) {
  const rows = list.boats;
  const says = saysOf(list, find);
  return (
    <>
      {says !== null && list.boatsInAll > 0 && (
        <p role="status" className="mt-2 text-soft">
          {says}
        </p>
      )}
      {list.boatsInAll === 0 ? (
        <p className="mt-3 border-t border-ink py-4">No boats yet. Those that are sold or in stock will stand here.</p>
      ) : (
        rows.length > 0 && (
          <div className="overflow-x-auto">
            <table className="mt-2 w-full">
              <thead>
                <tr className="border-b border-ink">
                  <th className="w-44 py-1 max-md:hidden">From above</th>
                  <th>Boat</th>
                  <th>Buyer</th>
                  <th>Handover</th>
                  <th className="text-right">Service due</th>
                  <th className="text-right">Owed</th>
                </tr>
              </thead>
              <tbody>
                {rows.map(({ id, name, hull, buyers, inService, nextDelivery, due, owed, ...boat }) => (
                  <tr key={id} className="border-b border-rule">
                    <td className="py-2 max-md:hidden">
                      <HullSign {...boat} />
                    </td>
                    <td className="py-2 pr-3">
                      <Link to={`/boats/${id}`} className="head inline-flex min-h-11 items-center font-bold underline">
                        {name}
                      </Link>
                      <p className="text-sm text-soft">{hull}</p>
                    </td>
                    <td className="max-w-72 py-2 pr-3 break-words">{buyers}</td>
                    <td className="py-2 pr-3 whitespace-nowrap">
                      {nextDelivery !== null
                        ? formatDayAndYear(nextDelivery)
                        : inService === null
                          ? "–"
                          : `was ${formatDayAndYear(inService)}`}
                    </td>
                    <td className="num py-2 text-right whitespace-nowrap">
                      {due === null ? (
                        "–"
                      ) : (
                        <span className={due.state === "overdue" ? "text-magenta" : ""}>
                          {due.state === "overdue" && "▲ "}
                          {formatDue({ ...due, date: due.dueDate })}
                        </span>
                      )}
                    </td>
                    <td className="num py-2 text-right font-semibold">{owed === 0 ? "–" : owed}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )
      )}
    </>
  );
}
