import { useState } from "react";
import type { TemplateLine } from "../../../api/index.ts";
import type { StockRow } from "../../../core/stock/index.ts";
import { say } from "../../ui/amounts.ts";

interface StockRowsProps {
  readonly rows: readonly StockRow[];
  readonly templates: readonly TemplateLine[];
}

const stateWords = { new: "new", known: "known already", wrong: "to be mended" } as const;
const pageSize = 100;

/** The rows as they would be taken, what is wrong first. */
export function StockRows({ rows, templates }: StockRowsProps) {
  const [shown, setShown] = useState(pageSize);
  const nameOf = new Map(templates.map(({ id, name }) => [id, name]));
  const count = (state: StockRow["state"]) => rows.filter((row) => row.state === state).length;
  const order = { wrong: 0, new: 1, known: 2 } as const;
  const sorted = rows.toSorted((a, b) => order[a.state] - order[b.state] || a.line - b.line);
  return (
    <section aria-labelledby="rows" className="mt-6">
      <h2 id="rows" className="text-lg font-bold">
        Rows
      </h2>
      <p role="status">
        <strong className="num">{count("new")}</strong> new, <strong className="num">{count("known")}</strong> known
        already, <strong className="num">{count("wrong")}</strong> to be mended
        {count("wrong") > 0 && ": mend them in the file and choose it again; the rest can be added now"}.
      </p>
      <div className="relative overflow-x-auto">
        <table className="mt-2 w-full">
          <thead>
            <tr className="border-b border-ink">
              <th className="w-14 py-1 text-right">Line</th>
              <th className="w-32 pl-4">State</th>
              <th>Boat</th>
              <th>Starts from</th>
              <th className="text-right">Size</th>
              <th className="pl-4">What to know</th>
            </tr>
          </thead>
          <tbody>
            {sorted.slice(0, shown).map(({ line, state, hull, boat, problems, doubts }) => (
              <tr key={line} className="border-b border-rule align-top">
                <td className="num py-2 text-right">{line}</td>
                <td className={`py-2 pl-4 ${state === "wrong" ? "text-magenta" : ""}`}>
                  {state === "wrong" && "▲ "}
                  {stateWords[state]}
                </td>
                <td className="py-2 pr-3">
                  {boat === null ? (
                    <span className="text-soft">{hull || "–"}</span>
                  ) : (
                    <>
                      {boat.name} <span className="text-soft">{boat.hull}</span>
                    </>
                  )}
                </td>
                <td className="py-2 pr-3">{boat === null ? "–" : nameOf.get(boat.template)}</td>
                <td className="num py-2 text-right whitespace-nowrap">
                  {boat === null ? "–" : boat.loaM === null ? "as template" : say(boat.loaM, "length")}
                </td>
                <td className="py-2 pl-4">
                  {problems.map(({ field, text }) => (
                    <span key={field} className="block text-magenta">
                      {text}.
                    </span>
                  ))}
                  {doubts.map((doubt) => (
                    <span key={doubt} className="block text-amber">
                      {doubt}.
                    </span>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > shown && (
        <button type="button" className="min-h-11 underline" onClick={() => setShown(shown + 10 * pageSize)}>
          Show more of the {rows.length} rows
        </button>
      )}
    </section>
  );
}
