import { tellJoined } from "../../core/language/index.ts";
import { hasOwnButton } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { NumberField, PickField, TickField } from "../ui/fields.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { useTell } from "../ui/tell.ts";
import { nameBattery } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

interface FieldsProps {
  readonly rig: Rig;
  readonly power: Power;
}

/** What the batteries are like, what runs by its own button, and what charges. */
export function DrainFields({ rig, power }: FieldsProps) {
  const { drain, sources } = power;
  const tell = useTell();
  const own = rig.loads.filter((load) => hasOwnButton(rig, load) && !/harness|dash|console feed/i.test(load.label));
  const hasFloat = rig.loads.some(({ always, serves = [] }) => always && serves.includes("pump"));
  const hasCharger = rig.parts.some(({ kind }) => kind === "charger");
  return (
    <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
      {rig.batteries.map(({ id, label, chemistry }) => (
        <NumberField
          key={id}
          label={tell("{0}, at rest", tell.label(label))}
          unit="V"
          value={power.volts[id]}
          onChange={(read) => power.readVolts(id, read)}
          least={4}
          most={60}
          isOptional
          why={tell(
            "{0} % charged, {1}; rested for some hours.",
            Math.round((power.setting.charge[id] ?? 1) * 100),
            tell(chemistry),
          )}
        />
      ))}
      <QuantityField
        label={tell("Air")}
        quantity="temperature"
        value={drain.airC}
        onChange={(airC) => airC !== undefined && power.setDrain({ airC })}
        least={-40}
        most={50}
        why={tell("Cold lead gives less.")}
      />
      <NumberField
        label={tell("Batteries are")}
        unit={tell("years old")}
        value={drain.years}
        onChange={(years) => years !== undefined && power.setDrain({ years })}
        least={0}
        most={15}
      />
      {hasFloat && (
        <PickField
          label={tell("Float pump runs")}
          value={String(drain.pumpEveryMin ?? "")}
          options={[
            ["", tell("not at all: dry bilge")],
            ["60", tell("a minute an hour")],
            ["20", tell("a minute in 20")],
            ["10", tell("a minute in 10")],
            ["5", tell("a minute in 5")],
          ]}
          onChange={(every) => power.setDrain({ pumpEveryMin: every === "" ? null : Number(every) })}
        />
      )}
      {own.map(({ id, label }) => (
        <TickField
          key={id}
          label={tell("{0} on, by its own button", tell.label(label))}
          value={drain.buttons[id] === true}
          onChange={(isOn) => power.setDrain({ buttons: { ...drain.buttons, [id]: isOn } })}
        />
      ))}
      <fieldset className="sm:col-span-2 lg:col-span-3">
        <legend className="head font-semibold text-soft">{tell("What charges")}</legend>
        <div className="flex flex-wrap gap-x-6">
          {rig.engines.map(({ id, label }) => (
            <TickField
              key={id}
              label={tell("{0} runs", tell.label(label))}
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
              label={tell("Shore power is in")}
              value={sources.shore}
              onChange={(shore) => power.setSources({ ...sources, shore })}
            />
          )}
        </div>
        {(sources.shore || sources.engines.length > 0) && (
          <ul aria-label={tell("What is charged")}>
            {power.charging.map(({ battery, by }) => (
              <li key={battery} className={by.length === 0 ? "text-amber" : ""}>
                {by.length === 0 ? "◷ " : "● "}
                {tell.label(nameBattery(rig, battery))}:{" "}
                {by.length === 0 ? tell("charged by nothing now") : tell("charged by {0}", tellJoined(tell, by))}
              </li>
            ))}
          </ul>
        )}
      </fieldset>
    </div>
  );
}
