import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { AnswerOf, Endpoints } from "../../../api/index.ts";
import { boatsQuery } from "../../app/queries.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { linkLook } from "../../ui/Button.tsx";
import { formatDue } from "../../ui/DueDay.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

/** Every boat of the store: the next handover first, then the next service. */
export function BoatsScreen() {
  const boats = useQuery(boatsQuery);
  return (
    <Fetched query={boats} what="the boats">
      {({ boats: rows }) => <BoatTable rows={rows} />}
    </Fetched>
  );
}

function BoatTable({ rows }: { rows: AnswerOf<Endpoints["boats"]>["boats"] }) {
  return (
    <main className="px-4 pt-5 pb-10 md:px-8">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-2xl font-bold">
          Boats <span className="num text-base font-normal text-soft">{rows.length}</span>
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
      {rows.length === 0 ? (
        <p className="mt-3 border-t border-ink py-4">No boats yet. Those that are sold or in stock will stand here.</p>
      ) : (
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
      )}
    </main>
  );
}
