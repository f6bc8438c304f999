import type { Boat } from "../../../api/index.ts";
import { FileLink } from "../../ui/AttachFile.tsx";
import { formatMoney } from "../../ui/money.ts";
import { PhotoLink } from "../../ui/PhotoField.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

const outcomeWords = { done: "here", elsewhere: "elsewhere", skipped: "skipped" } as const;

/** What was done so far, the last first. */
export function ServicesDone({ boat }: { boat: Boat }) {
  if (boat.services.length === 0) return null;
  const labels = new Map(boat.care.map(({ engine, label }) => [engine, label]));
  const titles = new Map(boat.care.flatMap(({ items }) => items.map(({ id, title }) => [id, title] as const)));
  for (const { item, title } of boat.visits.flatMap(({ items }) => items)) titles.set(item, title);
  return (
    <section aria-labelledby="done" className="mt-7">
      <h2 id="done" className="text-lg font-bold">
        What was done
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1">On</th>
              <th>Engine</th>
              <th>What</th>
              <th className="text-right">At</th>
              <th className="pl-4">Where, by whom</th>
              <th className="text-right">Price</th>
            </tr>
          </thead>
          <tbody>
            {boat.services
              .toReversed()
              .map(({ id, date, engine, item, hours, by, outcome, note, photo, file, fileName, priceCents }) => (
                <tr key={id} className="border-b border-rule align-top">
                  <td className="num py-1.5 pr-4 whitespace-nowrap">{formatDayAndYear(date)}</td>
                  <td className="pr-4">{labels.get(engine) ?? "The boat"}</td>
                  <td className="pr-4">
                    {titles.get(item) ?? item}
                    {note !== "" && <span className="block text-sm text-soft">{note}</span>}
                    {photo !== null && <PhotoLink photo={photo} says={titles.get(item) ?? item} />}
                    {file !== null && (
                      <span className="block">
                        <FileLink file={file} fileName={fileName ?? "file"} />
                      </span>
                    )}
                  </td>
                  <td className="num text-right whitespace-nowrap">
                    {engine === "boat" ? "" : `${hours.toFixed(1)} h`}
                  </td>
                  <td className="pl-4 text-soft">
                    {outcomeWords[outcome]}, {by}
                  </td>
                  <td className="num text-right">{priceCents === null ? "" : formatMoney(priceCents)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
