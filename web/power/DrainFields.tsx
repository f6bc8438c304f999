import { hasOwnButton } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { joinWords } from "../../core/text/index.ts";
import { NumberField, PickField, TickField } from "../ui/fields.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { nameBattery } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

interface FieldsProps {
  readonly rig: Rig;
  readonly power: Power;
}

/** What the batteries are like, what runs by its own button, and what charges. */
export function DrainFields({ rig, power }: FieldsProps) {
  const { drain, sources } = power;
  const own = rig.loads.filter((load) => hasOwnButton(rig, load) && !/harness|dash|console feed/i.test(load.label));
  const hasFloat = rig.loads.some(({ always, serves = [] }) => always && serves.includes("pump"));
  const hasCharger = rig.parts.some(({ kind }) => kind === "charger");
  return (
    <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
      {rig.batteries.map(({ id, label, chemistry }) => (
        <NumberField
          key={id}
          label={`${label}, at rest`}
          unit="V"
          value={power.volts[id]}
          onChange={(read) => power.readVolts(id, read)}
          least={4}
          most={60}
          isOptional
          why={`${Math.round((power.setting.charge[id] ?? 1) * 100)} % charged, ${chemistry}; rested for some hours.`}
        />
      ))}
      <QuantityField
        label="Air"
        quantity="temperature"
        value={drain.airC}
        onChange={(airC) => airC !== undefined && power.setDrain({ airC })}
        least={-40}
        most={50}
        why="Cold lead gives less."
      />
      <NumberField
        label="Batteries are"
        unit="years old"
        value={drain.years}
        onChange={(years) => years !== undefined && power.setDrain({ years })}
        least={0}
        most={15}
      />
      {hasFloat && (
        <PickField
          label="Float pump runs"
          value={String(drain.pumpEveryMin ?? "")}
          options={[
            ["", "not at all: dry bilge"],
            ["60", "a minute an hour"],
            ["20", "a minute in 20"],
            ["10", "a minute in 10"],
            ["5", "a minute in 5"],
          ]}
          onChange={(every) => power.setDrain({ pumpEveryMin: every === "" ? null : Number(every) })}
        />
      )}
      {own.map(({ id, label }) => (
        <TickField
          key={id}
          label={`${label} on, by its own button`}
          value={drain.buttons[id] === true}
          onChange={(isOn) => power.setDrain({ buttons: { ...drain.buttons, [id]: isOn } })}
        />
      ))}
      <fieldset className="sm:col-span-2 lg:col-span-3">
        <legend className="head font-semibold text-soft">What charges</legend>
        <div className="flex flex-wrap gap-x-6">
          {rig.engines.map(({ id, label }) => (
            <TickField
              key={id}
              label={`${label} runs`}
              value={sources.engines.includes(id)}
              onChange={(runs) =>
                power.setSources({
                  ...sources,
                  engines: runs ? [...sources.engines, id] : sources.engines.filter((each) => each !== id),
                })
              }
            />
          ))}
          {hasCharger && (
            <TickField
              label="Shore power is in"
              value={sources.shore}
              onChange={(shore) => power.setSources({ ...sources, shore })}
            />
          )}
        </div>
        {(sources.shore || sources.engines.length > 0) && (
          <ul aria-label="What is charged">
            {power.charging.map(({ battery, by }) => (
              <li key={battery} className={by.length === 0 ? "text-amber" : ""}>
                {by.length === 0 ? "◷ " : "● "}
                {nameBattery(rig, battery)}:{" "}
                {by.length === 0 ? "charged by nothing now" : `charged by ${joinWords(by)}`}
              </li>
            ))}
          </ul>
        )}
      </fieldset>
    </div>
  );
}
