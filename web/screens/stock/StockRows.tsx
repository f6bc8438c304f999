import { useState } from "react";
import type { TemplateLine } from "../../../api/index.ts";
import { families } from "../../../core/rig/index.ts";
import type { StockRow, StockStart } from "../../../core/stock/index.ts";
import { say, spell } from "../../ui/amounts.ts";
import { count as sayCount } from "../../ui/words.ts";
import { familyNames } from "../rig/BoatSection.tsx";

interface StockRowsProps {
  readonly rows: readonly StockRow[];
  readonly templates: readonly TemplateLine[];
  readonly starts: Readonly<Record<string, StockStart>>;
  readonly startOfRest: StockStart | null;
  /** What all boats that the list calls so start from. */
  readonly onStart: (kind: string, start: StockStart) => void;
  readonly onRest: (start: StockStart | null) => void;
}

const stateWords = { new: "new", known: "known already", wrong: "to be mended", choose: "choose a start" } as const;
const pageSize = 100;

const sayStart = (start: StockStart, nameOf: ReadonlyMap<string, string>) =>
  "template" in start ? nameOf.get(start.template) : `plain ${spell(familyNames[start.family]).toLowerCase()}`;

interface StartPickProps {
  readonly label: string;
  readonly start: StockStart | null;
  readonly nearest: readonly string[];
  readonly templates: readonly TemplateLine[];
  readonly onPick: (start: StockStart | null) => void;
}

/** The templates nearest to a boat, and the kinds a plain one can be made of. */
function StartPick({ label, start, nearest, templates, onPick }: StartPickProps) {
  const near = nearest.flatMap((id) => templates.find((template) => template.id === id) ?? []);
  const far = templates.filter(({ id }) => !nearest.includes(id));
  const list = (label: string, lines: readonly TemplateLine[]) => (
    <optgroup label={label}>
      {lines.map(({ id, name }) => (
        <option key={id} value={`template ${id}`}>
          {name}
        </option>
      ))}
    </optgroup>
  );
  return (
    <select
      aria-label={label}
      value={start === null ? "" : "template" in start ? `template ${start.template}` : `family ${start.family}`}
      onChange={({ target: { value } }) => onPick(readPick(value))}
      className="min-h-11 max-w-64 rounded-md border border-soft bg-panel px-2"
    >
      <option value="">choose …</option>
      {list("Nearest templates", near)}
      <optgroup label="A plain boat of a kind">
        {families.map((family) => (
          <option key={family} value={`family ${family}`}>
            plain {spell(familyNames[family]).toLowerCase()}
          </option>
        ))}
      </optgroup>
      {far.length > 0 && list("Other templates", far)}
    </select>
  );
}

function readPick(value: string): StockStart | null {
  const [what, id = ""] = value.split(" ");
  if (what === "template") return { template: id };
  const family = families.find((each) => each === id);
  return family === undefined ? null : { family };
}

/** The rows as they would be taken, what is wrong first. */
export function StockRows({ rows, templates, starts, startOfRest, onStart, onRest }: StockRowsProps) {
  const [shown, setShown] = useState(pageSize);
  const nameOf = new Map(templates.map(({ id, name }) => [id, name]));
  const count = (state: StockRow["state"]) => rows.filter((row) => row.state === state).length;
  const order = { wrong: 0, choose: 1, new: 2, known: 3 } as const;
  const unfit = rows.filter(({ state, nearest }) => nearest.length > 0 && state !== "wrong" && state !== "known");
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
      {unfit.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-l-4 border-helm bg-panel px-4 py-2">
          <span>
            {count("choose") > 0 ? (
              <>
                <strong>{sayCount(count("choose"), "boat fits", "boats fit")} no template.</strong> Choose below for
                each, or here for all of them:
              </>
            ) : (
              "No template fitted these boats; what they start from was chosen."
            )}
          </span>
          <StartPick
            label="What all of them start from"
            start={startOfRest}
            nearest={unfit[0]!.nearest}
            templates={templates}
            onPick={onRest}
          />
        </div>
      )}
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
            {sorted.slice(0, shown).map(({ line, state, kind, nearest, hull, boat, problems, doubts }) => (
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
                <td className="py-2 pr-3">
                  {nearest.length > 0 && (state === "choose" || state === "new") ? (
                    <StartPick
                      label={`What ${kind || hull} starts from`}
                      start={starts[kind] ?? startOfRest}
                      nearest={nearest}
                      templates={templates}
                      onPick={(start) => start !== null && onStart(kind, start)}
                    />
                  ) : (
                    (boat !== null && sayStart(boat.start, nameOf)) || "–"
                  )}
                </td>
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
