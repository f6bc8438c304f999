import { useMutation } from "@tanstack/react-query";
import { ulid } from "ulid";
import type { Boat, EngineCare } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { sayDayAndYear, sayDistance } from "../../ui/words.ts";

const stateSigns = { overdue: "▲ overdue", soon: "◷ soon", ahead: "ahead", finished: "done" } as const;

/** What falls due, by hours or by date, whichever comes first. */
export function ServiceTable({ boat }: { boat: Boat }) {
  const me = useMe();
  const canRecord = ["owner", "technician", "service"].includes(me.role);
  const record = useMutation({
    mutationFn: ({ care, item }: { care: EngineCare; item: string }) =>
      ask("addService", {
        params: { boat: boat.id },
        body: {
          id: ulid(),
          engine: care.engine,
          item,
          date: boat.today,
          hours: Math.round((care.likelyNowH ?? 0) * 10) / 10,
        },
      }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: boatQuery(boat.id).queryKey }),
  });
  return (
    <section aria-labelledby="service" className="mt-7">
      <h2 id="service" className="text-lg font-bold">
        Service <span className="font-text text-sm font-normal text-soft">{boat.care[0]?.serviceTitle}</span>
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1">Engine</th>
              <th>What</th>
              <th className="text-right">At hours</th>
              <th className="text-right">Likely there</th>
              <th className="text-right">By calendar</th>
              <th className="text-right">Due</th>
              <th className="pl-4">State</th>
              {canRecord && <th className="sr-only">Record</th>}
            </tr>
          </thead>
          <tbody>
            {boat.care.flatMap((care) =>
              care.items.map((item, i) => (
                <tr
                  key={`${care.engine}-${item.id}`}
                  className={`border-b ${i === care.items.length - 1 ? "border-soft" : "border-rule"} align-top`}
                >
                  <td className="py-2 pr-3">
                    {i === 0 && (
                      <>
                        <strong>{care.label}</strong>
                        <p className="num text-sm text-soft">{care.likelyNowH?.toFixed(1)} h likely now</p>
                      </>
                    )}
                  </td>
                  <td className="py-2 pr-3" title={item.work.join(", ")}>
                    {item.title}
                    {item.lastDone !== null && <p className="text-sm text-soft">last {sayDayAndYear(item.lastDone)}</p>}
                  </td>
                  <td className="num py-2 text-right whitespace-nowrap">
                    {item.targetH === null ? "–" : `${item.targetH.toFixed(0)} h`}
                  </td>
                  <Day date={item.hoursDate} />
                  <Day date={item.calendarDate} />
                  <td
                    className="num py-2 text-right font-semibold whitespace-nowrap"
                    data-testid={`due-${care.engine}-${item.id}`}
                  >
                    {item.dueDate === null ? "–" : sayDayAndYear(item.dueDate)}
                    {item.dueDate !== null && (
                      <p className="text-sm font-normal text-soft">
                        {sayDistance(item.dueDate, boat.today)}, by {item.by === "hours" ? "hours" : "calendar"}
                      </p>
                    )}
                  </td>
                  <td
                    className={`py-2 pl-4 whitespace-nowrap ${item.state === "overdue" ? "text-magenta" : item.state === "soon" ? "text-amber" : "text-soft"}`}
                  >
                    {stateSigns[item.state]}
                  </td>
                  {canRecord && (
                    <td className="py-1 text-right">
                      {item.state !== "finished" && (
                        <button
                          type="button"
                          className="min-h-11 font-semibold underline"
                          disabled={record.isPending}
                          aria-label={`Record ${item.title}, ${care.label}, as done today`}
                          onClick={() => record.mutate({ care, item: item.id })}
                        >
                          Done today
                        </button>
                      )}
                    </td>
                  )}
                </tr>
              )),
            )}
          </tbody>
        </table>
      </div>
      {record.error !== null && <ErrorNotice error={record.error} />}
      <p className="mt-1 text-sm text-soft">{boat.care[0]?.serviceBasis}</p>
    </section>
  );
}

function Day({ date }: { date: string | null }) {
  return <td className="num py-2 pl-3 text-right whitespace-nowrap">{date === null ? "–" : sayDayAndYear(date)}</td>;
}
