import { Minus, Plus } from "lucide-react";
import type { ReactNode } from "react";
import { languageNames, languages } from "../../../core/language/index.ts";
import { budgets, type PlanOptions } from "../../../core/route/index.ts";
import { Button } from "../../ui/Button.tsx";

interface WhoAndWhenProps {
  readonly planOptions: PlanOptions;
  readonly canChoose: boolean;
  readonly onChange: (change: Partial<PlanOptions>) => void;
}

const placeNames = {
  trailer: "On its trailer",
  hard: "On stands",
  afloat: "Afloat",
  remote: "Far away, by phone or page",
} as const;

/** How long there is, who comes, and where the boat stands: what the plan is made for. */
export function WhoAndWhen({ planOptions, canChoose, onChange }: WhoAndWhenProps) {
  return (
    <section aria-labelledby="who-and-when">
      <h2 id="who-and-when" className="text-lg font-bold">
        Who, where, how long
      </h2>
      <fieldset disabled={!canChoose} className="border-t border-ink">
        <legend className="sr-only">Who comes, where the boat is, how long there is</legend>
        <Row name="Time">
          {budgets.map((budget) => (
            <Choice
              key={budget ?? "all"}
              isOn={planOptions.budgetMin === budget}
              onPick={() => onChange({ budgetMin: budget })}
            >
              {budget === null ? "All of it" : budget}
            </Choice>
          ))}
          <span className="text-soft">min</span>
        </Row>
        <Row name="People">
          <Button
            className="w-11 px-0!"
            aria-label="One fewer"
            disabled={planOptions.people <= 1}
            onClick={() => onChange({ people: planOptions.people - 1 })}
          >
            <Minus size={18} aria-hidden />
          </Button>
          <span className="num w-8 text-center font-bold" role="status" aria-label={`${planOptions.people} people`}>
            {planOptions.people}
          </span>
          <Button
            className="w-11 px-0!"
            aria-label="One more"
            disabled={planOptions.people >= 8}
            onClick={() => onChange({ people: planOptions.people + 1 })}
          >
            <Plus size={18} aria-hidden />
          </Button>
          <Choice isOn={planOptions.experience === "first-time"} onPick={() => onChange({ experience: "first-time" })}>
            First boat
          </Choice>
          <Choice
            isOn={planOptions.experience === "experienced"}
            onPick={() => onChange({ experience: "experienced" })}
          >
            Experienced
          </Choice>
        </Row>
        <Row name="Reads">
          {languages.map((language) => (
            <Choice
              key={language}
              isOn={(planOptions.language ?? "en") === language}
              onPick={() => onChange({ language })}
            >
              <span lang={language}>{languageNames[language]}</span>
            </Choice>
          ))}
          <span className="text-soft">on their page and cards</span>
        </Row>
        <Row name="Boat">
          <select
            aria-label="Where the boat is"
            value={planOptions.place}
            onChange={(event) => onChange({ place: event.target.value as PlanOptions["place"] })}
            className="min-h-11 max-w-full min-w-0 rounded-md border border-soft bg-panel px-2"
          >
            {Object.entries(placeNames).map(([place, name]) => (
              <option key={place} value={place}>
                {name}
              </option>
            ))}
          </select>
          {planOptions.place !== "afloat" && planOptions.place !== "remote" && (
            <label className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-ink"
                checked={planOptions.hose}
                onChange={(event) => onChange({ hose: event.target.checked })}
              />
              hose for the engine
            </label>
          )}
        </Row>
      </fieldset>
    </section>
  );
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[4rem_minmax(0,1fr)] items-center border-b border-rule py-1">
      <span className="text-soft">{name}</span>
      <div className="flex flex-wrap items-center gap-1">{children}</div>
    </div>
  );
}

function Choice({ isOn, onPick, children }: { isOn: boolean; onPick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onPick}
      className={`num min-h-11 min-w-11 rounded-md px-2 disabled:opacity-60 ${isOn ? "bg-ink font-bold text-sheet" : "underline decoration-rule underline-offset-4"}`}
    >
      {children}
    </button>
  );
}
